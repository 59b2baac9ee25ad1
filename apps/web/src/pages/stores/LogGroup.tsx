import { cuttingRate, freshRate } from "@true-spine/core/abrasive/cutting.ts";
import { fitRate } from "@true-spine/core/abrasive/log.ts";
import { abrasiveName } from "@true-spine/core/abrasive/schema.ts";
import { useState } from "react";
import { Alert } from "../../parts/Alert.tsx";
import { NumberBox } from "../../parts/Box.tsx";
import { Choice, Group, SmallButton } from "../../parts/Group.tsx";
import { useShop } from "../../shop/shop.ts";

/** Times and weights written down, the rate they give, and that rate taken over when the maker says so. */
export function LogGroup() {
  const { shop, put } = useShop();
  const [chosen, setChosen] = useState("");
  const [minutes, setMinutes] = useState(5);
  const [grams, setGrams] = useState(5);
  const [why, setWhy] = useState<string | null>(null);
  const belt = shop.abrasives.find(({ id }) => id === chosen) ?? shop.abrasives[0];
  if (!belt) return null;
  const fit = fitRate(shop.log, belt.id);
  const now = cuttingRate(belt);
  const add = () =>
    setWhy(
      put({
        ...shop,
        log: [...shop.log, { belt: belt.id, minutes, grams, when: new Date().toISOString().slice(0, 10) }],
      }),
    );
  const take = () =>
    setWhy(
      put({
        ...shop,
        abrasives: shop.abrasives.map((one) =>
          one.id === belt.id ? { ...one, rate: freshRate(fit!.rate, one.condition) } : one,
        ),
      }),
    );
  return (
    <Group title="Times from the shop">
      <Choice
        label="Belt"
        value={belt.id}
        options={shop.abrasives.map((one) => ({ value: one.id, name: abrasiveName(one) }))}
        onChange={setChosen}
      />
      <div className="flex items-center gap-2 text-sm text-faint">
        <span className="w-18">
          <NumberBox label="Minutes with it" value={minutes} least={0.1} most={1000} onChange={setMinutes} />
        </span>
        <span className="ml-2 whitespace-nowrap">min took off</span>
        <span className="w-18">
          <NumberBox label="Grams it took off" value={grams} least={0.01} most={10_000} onChange={setGrams} />
        </span>
        <span className="ml-2">g</span>
        <SmallButton onClick={add}>Add</SmallButton>
      </div>
      {fit ? (
        <p className="text-xs">
          {fit.count} recorded: {fit.rate.toFixed(0)} mm³ a minute
          {fit.spread !== null && `, ± ${fit.spread.toFixed(0)} from one to the next`}. Planned with{" "}
          {now.toFixed(0)} now. <SmallButton onClick={take}>Use this rate</SmallButton>
        </p>
      ) : (
        <p className="text-xs text-faint">
          Nothing recorded for it yet. Weigh the blade before and after; the rate is all steel over all
          minutes.
        </p>
      )}
      {why && <Alert>{why}</Alert>}
    </Group>
  );
}
