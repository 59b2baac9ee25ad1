import { abrasiveName } from "@true-spine/core/abrasive/schema.ts";
import { ArrowDown, ArrowUp, X } from "lucide-react";
import { Choice, SmallButton } from "../../parts/Group.tsx";
import { useShop } from "../../shop/shop.ts";

/** The belts of a stage in the maker's own order: moved, taken out and put in; and back to the cheapest on hand. */
export function OwnOrder({
  belts,
  isOwn,
  onChange,
}: {
  belts: readonly string[];
  isOwn: boolean;
  /** Undefined: the cheapest on hand again. */
  onChange: (belts: string[] | undefined) => void;
}) {
  const { shop } = useShop();
  const known = new Map(shop.abrasives.map((belt) => [belt.id, belt]));
  const put = (order: string[]) => onChange(order.length > 0 ? order : undefined);
  const name = (id: string) => {
    const belt = known.get(id);
    return belt ? abrasiveName(belt) : "a belt no longer in the stores";
  };
  return (
    <details open={isOwn}>
      <summary className="cursor-pointer text-xs text-faint">Your own order of belts</summary>
      <ol aria-label="Own order of belts" className="mt-1 flex flex-col text-sm">
        {belts.map((id, i) => (
          // biome-ignore lint/suspicious/noArrayIndexKey: the same belt may stand twice
          <li key={`${id} ${i}`} className="flex items-center gap-1">
            <span className="min-w-0 flex-1 truncate">{name(id)}</span>
            <SmallButton
              label={`${name(id)} earlier`}
              isOff={i === 0}
              onClick={() => put(belts.with(i, belts[i - 1]!).with(i - 1, id))}
            >
              <ArrowUp className="size-3.5" aria-hidden />
            </SmallButton>
            <SmallButton
              label={`${name(id)} later`}
              isOff={i === belts.length - 1}
              onClick={() => put(belts.with(i, belts[i + 1]!).with(i + 1, id))}
            >
              <ArrowDown className="size-3.5" aria-hidden />
            </SmallButton>
            <SmallButton label={`${name(id)} out of the order`} onClick={() => put(belts.toSpliced(i, 1))}>
              <X className="size-3.5" aria-hidden />
            </SmallButton>
          </li>
        ))}
      </ol>
      <div className="mt-1 flex items-center gap-2">
        <Choice
          label="Add a belt"
          value=""
          options={[
            { value: "", name: "choose …" },
            ...shop.abrasives.map((belt) => ({ value: belt.id, name: abrasiveName(belt) })),
          ]}
          onChange={(id) => {
            if (id) put([...belts, id]);
          }}
        />
        {isOwn && <SmallButton onClick={() => onChange(undefined)}>Cheapest on hand again</SmallButton>}
      </div>
    </details>
  );
}
