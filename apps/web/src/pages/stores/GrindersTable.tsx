import { GRINDER_KINDS, type Grinder } from "@true-spine/core/shop/grinders.ts";
import { X } from "lucide-react";
import { useState } from "react";
import { Alert } from "../../parts/Alert.tsx";
import { NumberBox, RangedLength } from "../../parts/Box.tsx";
import { PlainButton } from "../../parts/PlainButton.tsx";
import { freshId } from "../../shop/fresh-id.ts";
import { useShop } from "../../shop/shop.ts";
import { Headings } from "./tables.tsx";

/** A two-inch belt on a flat platen. Common practice. */
const USUAL: Omit<Grinder, "id"> = { kind: "belt", belt: 50, platen: 200, speed: 20 };
const KIND_NAMES: Readonly<Record<Grinder["kind"], string>> = {
  belt: "belt grinder",
  disc: "disc",
  stone: "stone",
};

/** What the shop grinds on: a correction is never narrower than the narrowest of them. */
export function GrindersTable() {
  const { shop, put } = useShop();
  const [why, setWhy] = useState<string | null>(null);
  const own = shop.grinders ?? [];
  const change = (grinders: Grinder[]) => setWhy(put({ ...shop, grinders }));
  const add = () => {
    change([...own, { id: freshId(own, "grinder"), ...USUAL }]);
  };
  return (
    <section aria-label="Grinders" className="mt-6">
      <div className="mb-2 flex items-center justify-between">
        <h2 className="font-bold">Grinders</h2>
        <PlainButton onClick={add}>Add a grinder</PlainButton>
      </div>
      {why && <Alert className="mb-2">{why}</Alert>}
      {own.length > 0 && (
        <table className="w-full border-collapse bg-sheet text-sm">
          <Headings names={["kind", "width along the blade", "platen", "wheel", "speed, m/s"]} />
          <tbody>
            {own.map((one, i) => (
              <Row
                key={one.id}
                one={one}
                number={i + 1}
                onEdit={(patch) =>
                  change(own.map((other) => (other === one ? settled({ ...one, ...patch }) : other)))
                }
                onRemove={() => change(own.filter((other) => other !== one))}
              />
            ))}
          </tbody>
        </table>
      )}
      <p className="mt-2 max-w-prose text-xs text-faint">
        {own.length === 0 && "None yet: a belt 50.8 mm wide is reckoned with. "}A correction on Check is never
        narrower than the narrowest of these. Nought stands for none.
      </p>
    </section>
  );
}

function Row({
  one,
  number,
  onEdit,
  onRemove,
}: {
  one: Grinder;
  number: number;
  onEdit: (patch: Partial<Grinder>) => void;
  onRemove: () => void;
}) {
  const length = (what: "belt" | "platen" | "wheel", name: string, least: number, most: number) => (
    <td className="px-1.5 py-1">
      <RangedLength
        label={`${name} of grinder ${number}`}
        value={one[what] ?? 0}
        least={least}
        most={most}
        onChange={(value) => onEdit({ [what]: value })}
      />
    </td>
  );
  return (
    <tr className="border-t border-rule">
      <td className="px-1.5 py-1">
        <select
          aria-label={`Kind of grinder ${number}`}
          className="h-8 w-34 rounded border border-frame bg-sheet px-1"
          value={one.kind}
          onChange={(event) => onEdit({ kind: event.currentTarget.value as Grinder["kind"] })}
        >
          {GRINDER_KINDS.map((kind) => (
            <option key={kind} value={kind}>
              {KIND_NAMES[kind]}
            </option>
          ))}
        </select>
      </td>
      {length("belt", "Width", 5, 400)}
      {length("platen", "Platen", 0, 2000)}
      {length("wheel", "Wheel", 0, 2000)}
      <td className="px-1.5 py-1">
        <NumberBox
          label={`Speed of grinder ${number}`}
          value={one.speed ?? 0}
          least={0}
          most={60}
          unit="m/s"
          onChange={(speed) => onEdit({ speed })}
        />
      </td>
      <td>
        <button
          type="button"
          aria-label={`Remove grinder ${number}`}
          className="rounded p-1.5 text-faint hover:bg-room"
          onClick={onRemove}
        >
          <X className="size-4" aria-hidden />
        </button>
      </td>
    </tr>
  );
}

/** What is nought is not there. */
function settled({ platen, wheel, speed, ...one }: Grinder): Grinder {
  return {
    ...one,
    ...(platen ? { platen } : {}),
    ...(wheel ? { wheel } : {}),
    ...(speed ? { speed } : {}),
  };
}
