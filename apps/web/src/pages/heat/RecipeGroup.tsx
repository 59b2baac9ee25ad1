import { opsOf, recipeOf, withRecipe } from "@true-spine/core/route/heats.ts";
import { useState } from "react";
import { useScreen } from "../../blade/screen.ts";
import { Alert } from "../../parts/Alert.tsx";
import { Choice, Group, RecordButton, SmallButton } from "../../parts/Group.tsx";
import { TextBox } from "../../parts/TextBox.tsx";
import { freshId } from "../../shop/fresh-id.ts";
import { useShop } from "../../shop/shop.ts";
import { useHeat } from "./useHeat.ts";

/** Recipes of the shop: laid over this route, or kept from it. */
export function RecipeGroup() {
  const { open } = useScreen();
  const { heat, route, blade } = useHeat();
  const { shop, put } = useShop();
  const [name, setName] = useState("");
  const [why, setWhy] = useState<string | null>(null);
  const recipes = shop.heatRecipes ?? [];
  const steel = heat.steel.grade ?? blade.steel;
  const [picked, setPicked] = useState("");
  const recipe = recipes.find(({ id }) => id === picked) ?? recipes.find((one) => one.steel === steel);
  const keep = () => {
    const told = name.trim();
    if (told === "") {
      setWhy("Give it a name first.");
      return;
    }
    const kept = recipeOf(opsOf(route, heat, blade), {
      id: freshId(recipes, "recipe"),
      name: told,
      steel,
    });
    const refused = put({ ...shop, heatRecipes: [...recipes, kept] });
    setWhy(refused);
    if (!refused) setName("");
  };
  return (
    <Group title="Recipes of the shop">
      {recipes.length > 0 && (
        <>
          <Choice
            label="Recipe"
            value={recipe?.id ?? ""}
            options={[
              ...(recipe ? [] : [{ value: "", name: "choose one" }]),
              ...recipes.map((one) => ({
                value: one.id,
                name: one.steel ? `${one.name} (${one.steel})` : one.name,
              })),
            ]}
            onChange={setPicked}
          />
          {recipe && (
            <>
              {recipe.steel && steel && recipe.steel !== steel && (
                <p className="text-sm">
                  It is for {recipe.steel}; this blade is {steel}.
                </p>
              )}
              <SmallButton
                onClick={() => {
                  open.end();
                  open.put(withRecipe(blade, route, heat, recipe));
                }}
              >
                Do these heats on this blade
              </SmallButton>
            </>
          )}
        </>
      )}
      <TextBox label="Keep these heats as" text={name} onText={setName} size="small" onEnter={keep} />
      {why && <Alert>{why}</Alert>}
      <RecordButton onClick={keep}>Keep as a recipe</RecordButton>
    </Group>
  );
}
