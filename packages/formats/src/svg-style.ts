import { type Attributes, childrenOf, type Node, tagOf } from "./svg-tree.ts";

/** One rule of a style sheet: what it is of, and what it says. */
export interface Rule {
  readonly of: string;
  readonly says: Style;
}
export interface Style {
  readonly display?: string;
  readonly visibility?: string;
  readonly transform?: string;
}
const MOST_RULES = 2000;

/** What style sheets in it say of classes, ids and tags by themselves; any longer selector is not looked at. */
export function rulesOf(root: Node): Rule[] {
  const rules: Rule[] = [];
  const waiting = [root];
  while (waiting.length > 0) {
    const node = waiting.pop()!;
    if (tagOf(node) === "style") {
      const text = childrenOf(node)
        .map((child) => String(child["#text"] ?? ""))
        .join(" ")
        .replace(/\/\*[\s\S]*?\*\//g, "");
      for (const [, selectors, body] of text.matchAll(/([^{}]+)\{([^{}]*)\}/g)) {
        const says = declared(body!);
        for (const of of selectors!.split(",").map((one) => one.trim())) {
          if (/^[.#]?[\w-]+$/.test(of) && rules.length < MOST_RULES) rules.push({ of, says });
        }
      }
    }
    waiting.push(...childrenOf(node));
  }
  return rules;
}

function declared(text: string): Style {
  const said = new Map(
    text.split(";").flatMap((one): [string, string][] => {
      const at = one.indexOf(":");
      return at < 0
        ? []
        : [
            [
              one.slice(0, at).trim().toLowerCase(),
              one
                .slice(at + 1)
                .replace(/!important/i, "")
                .trim(),
            ],
          ];
    }),
  );
  const of = (name: "display" | "visibility" | "transform") =>
    said.has(name) ? { [name]: said.get(name)! } : {};
  return { ...of("display"), ...of("visibility"), ...of("transform") };
}

/** What counts for an element: its attributes, then the sheets by tag, class and id, then its own style. Source: CSS, by specificity. */
export function styleOf(tag: string, attributes: Attributes, rules: readonly Rule[]): Style {
  const classes = (attributes.class ?? "").split(/\s+/).map((name) => `.${name}`);
  const said = (matches: (of: string) => boolean): Style =>
    Object.assign({}, ...rules.flatMap(({ of, says }) => (matches(of) ? [says] : [])));
  const { display, visibility } = attributes;
  return {
    ...(display ? { display } : {}),
    ...(visibility ? { visibility } : {}),
    ...said((of) => of === tag),
    ...said((of) => classes.includes(of)),
    ...said((of) => of === `#${attributes.id}`),
    ...declared(attributes.style ?? ""),
  };
}
