import { bevelOn } from "@true-spine/core/blade/schema.ts";
import { isStraight } from "@true-spine/core/grind/pull.ts";
import { showAngle } from "@true-spine/core/units/angle.ts";
import { showLength, showLengthWithUnit } from "@true-spine/core/units/length.ts";
import { useSettings } from "../../app/settings.ts";
import { groundOtherWay, straightPull } from "../../blade/pull.ts";
import { useFilePart, useRail, useScreen } from "../../blade/screen.ts";
import { Group, SmallButton } from "../../parts/Group.tsx";

/** A straight pull against following the edge: what it does round the belly, from where, and by how much to swing. */
export function PullGroup() {
  const file = useFilePart((file) => file);
  const { rail } = useScreen();
  const isShown = useRail((state) => state.isOtherPullShown);
  const bevel = bevelOn(file, "right");
  if (bevel.kind !== "flat") return null;
  const isNow = isStraight(bevel);
  return (
    <Group title="Pulled straight, or followed">
      <label className="flex items-center gap-2 text-sm">
        <input
          type="checkbox"
          className="size-5"
          checked={isShown}
          onChange={(event) => rail.setState({ isOtherPullShown: event.currentTarget.checked })}
        />
        {isNow ? "Draw it followed, too" : "Draw it pulled straight, too"}
      </label>
      {(isNow || isShown) && <Told isNow={isNow} />}
    </Group>
  );
}

function Told({ isNow }: { isNow: boolean }) {
  const file = useFilePart((file) => file);
  const { rail } = useScreen();
  const unit = useSettings((settings) => settings.unit);
  if (!isNow && !groundOtherWay(file)) {
    return <p className="text-xs text-faint">A blade whose apex lies in a face is not pulled straight.</p>;
  }
  const told = straightPull(file);
  const say = (mm: number) => showLengthWithUnit(mm, unit);
  if (!told)
    return <p className="text-xs text-faint">Pulled straight, this edge stays as thick as it starts.</p>;
  return (
    <>
      <p className="text-xs">
        {isNow ? "The straight pull leaves" : "A straight pull would leave"} {say(told.start)} where it
        starts, up to {say(told.thickest)} at {showLength(told.at, unit)}. Swing the handle away from{" "}
        {showLength(told.from, unit)} on, by up to {showAngle(told.swing, 0)}.
      </p>
      <div>
        <SmallButton onClick={() => rail.setState({ scribe: Math.round(told.from * 10) / 10 })}>
          Go to where it starts
        </SmallButton>
      </div>
    </>
  );
}
