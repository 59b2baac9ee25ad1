import { apart, climb, firstPlace, mirrored, scaled, turned } from "@true-spine/core/photo/place.ts";
import { NO_PHOTO, type PhotoPlace } from "@true-spine/core/photo/schema.ts";
import { useState } from "react";
import { fieldOf } from "../../blade/derived.ts";
import { pictureFrom } from "../../blade/picture.ts";
import { useDocument, useRail, useScreen } from "../../blade/screen.ts";
import { whyNot } from "../../blade/store.ts";
import { useEdit } from "../../blade/useEdit.ts";
import { Alert } from "../../parts/Alert.tsx";
import { AngleBox, LengthBox, ShareBox } from "../../parts/Box.tsx";
import { FileBox } from "../../parts/FileBox.tsx";
import { Group, SmallButton } from "../../parts/Group.tsx";

/** A photo of a liked knife under the outline: chosen, scaled by two marks a known distance apart, moved, turned. */
export function PhotoGroup() {
  const { open, rail } = useScreen();
  const { picture } = useDocument("photo");
  const [why, setWhy] = useState<string | null>(null);
  const [isBusy, setIsBusy] = useState(false);
  const choose = async (file: File | undefined) => {
    if (!file) return;
    setWhy(null);
    setIsBusy(true);
    try {
      const next = await pictureFrom(file);
      const { file: blade, photoPlace } = open.store.getState();
      const place = firstPlace(next, fieldOf(blade).ring, photoPlace.strength);
      open.end();
      const refused = whyNot(open.put({ photo: { ...NO_PHOTO, picture: next }, photoPlace: place }));
      setWhy(refused);
      if (!refused) rail.setState({ isLayingPhoto: true });
    } catch (error) {
      setWhy(error instanceof Error ? error.message : "That picture could not be read.");
    } finally {
      setIsBusy(false);
    }
  };
  return (
    <Group
      title="Photo under it"
      aside={
        <span className="flex gap-1">
          <FileBox
            label="Photo to lay under the outline"
            words={picture ? "Change" : "Add a photo"}
            accept="image/jpeg,image/png,image/webp"
            size="small"
            onPick={(picked) => void choose(picked)}
          />
          {picture && (
            <SmallButton
              onClick={() => {
                open.end();
                open.put({ photo: NO_PHOTO });
                rail.setState({ isLayingPhoto: false });
              }}
            >
              Remove
            </SmallButton>
          )}
        </span>
      }
    >
      {!picture && !why && (
        <p className="text-xs text-faint">
          {isBusy
            ? "Reading the picture …"
            : "A liked knife, taken square from its side with a rule beside it. It stays on this machine."}
        </p>
      )}
      {picture && <Laying />}
      {why && <Alert>{why}</Alert>}
    </Group>
  );
}

function Laying() {
  const { open, rail } = useScreen();
  const { visit } = useEdit();
  const place = useDocument("photoPlace");
  const isLaying = useRail((state) => state.isLayingPhoto);
  const put = (next: PhotoPlace) => whyNot(open.put({ photoPlace: next }));
  return (
    <>
      <label className="flex items-center gap-2 text-sm">
        <input
          type="checkbox"
          checked={isLaying}
          onChange={(event) => rail.setState({ isLayingPhoto: event.currentTarget.checked })}
        />
        move the photo
      </label>
      {isLaying && (
        <p className="text-xs text-faint">
          Put the two round marks on places you know the distance of, then type it. The square moves the
          photo.
        </p>
      )}
      <LengthBox
        label="Between the marks"
        value={apart(place)}
        onVisit={visit}
        onCommit={(mm) => (mm > 0 ? put(scaled(place, mm)) : "The marks must lie apart.")}
      />
      <AngleBox
        label="Marks climb by"
        value={Number(climb(place).toFixed(2))}
        echo={0.01}
        onVisit={visit}
        onCommit={(degrees) => put(turned(place, degrees))}
      />
      <ShareBox
        label="Strength"
        value={place.strength}
        onVisit={visit}
        onCommit={(strength) => put({ ...place, strength })}
      />
      <div className="flex gap-1">
        <SmallButton
          onClick={() => {
            open.end();
            put(turned(place, 0));
          }}
        >
          Level by the marks
        </SmallButton>
        <SmallButton
          onClick={() => {
            open.end();
            put(mirrored(place));
          }}
        >
          Mirror
        </SmallButton>
      </div>
    </>
  );
}
