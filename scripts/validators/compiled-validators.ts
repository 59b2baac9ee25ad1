import { fileURLToPath } from "node:url";
import { _, Ajv } from "ajv";
import standalone from "ajv/dist/standalone/index.js";
import { build } from "esbuild";
import type { Plugin } from "vite";
import { OPTIONS } from "../../packages/core/src/document/validator.ts";
import { schemaKey } from "./schema-key.ts";

const here = (path: string) => fileURLToPath(new URL(path, import.meta.url));
const VALIDATOR = here("../../packages/core/src/document/validator.ts");
const KEY = here("./schema-key.ts");

/** What one module of the core gets in place of validator.ts, by the module's path; and one validator, by its schema's key. */
const FOR = "\0validators-for:";
const ONE = "\0validator:";

/** What a compiled validator asks for, and what it gets. */
const NEEDS: Readonly<Record<string, { name: string; from: string }>> = {
  formats: { name: "FORMATS", from: here("../../packages/core/src/document/time.ts") },
  "ajv/dist/runtime/ucs2length": { name: "lengthOf", from: here("./validator-runtime.ts") },
  "ajv/dist/runtime/equal": { name: "isEqual", from: here("./validator-runtime.ts") },
};

/**
 * Compiles the core's validators while the app is built, so that neither its pages nor its server carry the compiler, and pages need not
 * make code out of text: the policy they are served with forbids that.
 */
export function compiledValidators(): Plugin {
  const schemas = new Map<string, object>();
  return {
    name: "compiled-validators",
    apply: "build",
    enforce: "pre",
    async resolveId(source, importer) {
      if (source.startsWith(ONE)) return source;
      if (!importer || !source.endsWith("/validator.ts")) return null;
      const resolved = await this.resolve(source, importer, { skipSelf: true });
      return resolved?.id === VALIDATOR ? FOR + importer : null;
    },
    async load(id) {
      if (id.startsWith(ONE)) return codeOf(schemas.get(id.slice(ONE.length))!);
      if (!id.startsWith(FOR)) return null;
      const made = await schemasMadeBy(id.slice(FOR.length));
      for (const schema of made) {
        const key = schemaKey(schema);
        const before = schemas.get(key);
        if (before && JSON.stringify(before) !== JSON.stringify(schema))
          throw new Error(`Two schemas have the key ${key}.`);
        schemas.set(key, schema);
      }
      return lookupOf([...new Set(made.map(schemaKey))]);
    },
  };
}

/** The schemas that a module of the core, and what it imports, makes validators of as it loads. */
async function schemasMadeBy(path: string): Promise<readonly object[]> {
  const { outputFiles } = await build({
    stdin: {
      contents: `import ${JSON.stringify(path)}; export { made } from ${JSON.stringify(VALIDATOR)};`,
      resolveDir: here(".."),
    },
    bundle: true,
    write: false,
    format: "esm",
    platform: "node",
    plugins: [
      {
        name: "record",
        setup: ({ onLoad }) =>
          onLoad({ filter: /[/\\]document[/\\]validator\.ts$/ }, () => ({
            contents: `export const made = [];
              export const validatorOf = (schema) => { made.push(schema); return () => true; };`,
          })),
      },
    ],
  });
  const code = Buffer.from(outputFiles[0]!.contents).toString("base64");
  const { made } = await import(`data:text/javascript;base64,${code}`);
  return made;
}

/** `validatorOf` for one module: all that it asks for is compiled already. */
function lookupOf(keys: readonly string[]): string {
  return `import { schemaKey } from ${JSON.stringify(KEY)};
    ${keys.map((key, i) => `import v${i} from ${JSON.stringify(ONE + key)};`).join("\n")}
    const compiled = { ${keys.map((key, i) => `${JSON.stringify(key)}: v${i}`).join(", ")} };
    export function validatorOf(schema) {
      const found = compiled[schemaKey(schema)];
      if (!found) throw new Error("This schema was not there when its module loaded.");
      return found;
    }`;
}

/** One schema's validator as a module. */
function codeOf(schema: object): string {
  const ajv = new Ajv({ ...OPTIONS, code: { source: true, esm: true, formats: _`require("formats")` } });
  const used = new Set<string>();
  const code = standalone(ajv, ajv.compile(schema)).replaceAll(
    /require\("([^"]+)"\)(\.default)?/g,
    (_all, what: string) => {
      used.add(what);
      return NEEDS[what]!.name;
    },
  );
  const imports = [...used].map((what) => {
    const { name, from } = NEEDS[what]!;
    return `import { ${name} } from ${JSON.stringify(from)};`;
  });
  return `${imports.join("\n")}\n${code}`;
}
