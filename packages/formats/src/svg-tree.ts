/** An SVG's elements as the XML parser gives them, in their order. */
export type Attributes = Readonly<Record<string, string>>;
export type Node = Readonly<Record<string, unknown>>;

export function tagOf(node: Node): string {
  return (Object.keys(node).find((key) => key !== ":@") ?? "").replace(/^.*:/, "");
}

export function attributesOf(node: Node): Attributes {
  return (node[":@"] ?? {}) as Attributes;
}

export function childrenOf(node: Node): Node[] {
  const key = Object.keys(node).find((one) => one !== ":@");
  const inside = key === undefined ? [] : node[key];
  return Array.isArray(inside) ? (inside as Node[]) : [];
}
