import { useState } from "react";
import { readBlade, useBladeNames } from "../../api/blades.ts";
import { useRail, useScreen } from "../../blade/screen.ts";
import { Alert } from "../../parts/Alert.tsx";
import { Choice, Group } from "../../parts/Group.tsx";

/** A liked blade of the rack, laid under this one: its outline on the side view, its edge on the edge strip, its figure at the scribe. */
export function GhostGroup() {
  const { id, rail } = useScreen();
  const ghost = useRail((state) => state.ghost);
  const { data } = useBladeNames();
  const [why, setWhy] = useState<string | null>(null);
  const others = (data ?? []).filter((row) => row.id !== id);
  const choose = async (other: string) => {
    setWhy(null);
    if (!other) {
      rail.setState({ ghost: null });
      return;
    }
    try {
      const { file } = await readBlade(other);
      rail.setState({ ghost: { id: other, file } });
    } catch {
      setWhy("That blade could not be fetched: the server is away.");
    }
  };
  return (
    <Group title="Compare with">
      <Choice
        label="Blade of the rack"
        value={ghost?.id ?? ""}
        options={[{ value: "", name: "none" }, ...others.map((row) => ({ value: row.id, name: row.name }))]}
        onChange={(other) => void choose(other)}
      />
      {why && <Alert>{why}</Alert>}
    </Group>
  );
}
