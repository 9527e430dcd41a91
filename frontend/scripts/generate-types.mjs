// Writes TypeScript types from the JSON Schema that Python wrote; with --check only compares.
import { readFile, writeFile } from "node:fs/promises";
import { compile } from "json-schema-to-typescript";

const folder = new URL("../src/api/generated/", import.meta.url);
const schema = JSON.parse(await readFile(new URL("wire.schema.json", folder), "utf8"));

// Titles of properties would each become a named type, and a default beside a reference a copy of the type.
// Properties themselves may have these names.
const plain = (part) => {
  if (Array.isArray(part)) return part.map(plain);
  if (part === null || typeof part !== "object") return part;
  return Object.fromEntries(
    Object.entries(part)
      .filter(([name, value]) => !(name === "title" && typeof value === "string") && name !== "default")
      .map(([name, value]) => [name, name === "properties" ? everyOne(value) : plain(value)]),
  );
};

const everyOne = (properties) =>
  Object.fromEntries(Object.entries(properties).map(([name, value]) => [name, plain(value)]));

const types = await compile(plain(schema), "Wire", {
  unreachableDefinitions: true,
  additionalProperties: false,
  bannerComment: "// Generated from wire.schema.json by npm run types. Do not edit.",
  style: { printWidth: 120 },
});
const target = new URL("wire.ts", folder);
if (process.argv.includes("--check")) {
  if ((await readFile(target, "utf8")) !== types) {
    console.error("src/api/generated/wire.ts is out of date. Run: npm run types");
    process.exit(1);
  }
} else {
  await writeFile(target, types);
}
