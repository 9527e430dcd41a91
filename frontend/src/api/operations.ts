// An OpenAPI document as a list of operations, and asking for one of them.

interface Parameter {
  name: string;
  in: "path" | "query" | "header";
  required: boolean;
  description: string;
}

interface Schema {
  properties?: Record<string, unknown>;
  required?: readonly string[];
}

/** As much of an OpenAPI 3.1 document as is read here. */
export interface Described {
  paths: Record<string, Record<string, DescribedOperation>>;
  components: { schemas: Record<string, Schema> };
}

interface DescribedOperation {
  operationId: string;
  summary: string;
  description: string;
  parameters: Parameter[];
  requestBody?: { content: Record<string, { schema: { $ref?: string } }> };
}

/** One operation; `takes` is the schema of its body, where it has one. */
export interface Asked extends Omit<DescribedOperation, "operationId" | "requestBody"> {
  id: string;
  method: string;
  path: string;
  takes: Schema | null;
}

export const DOCUMENT = "/api/v1/openapi.json";

/** What the server says can be asked for. */
export async function operations(): Promise<Asked[]> {
  const reply = await fetch(DOCUMENT, { signal: AbortSignal.timeout(30_000) });
  if (!reply.ok) throw new Error(reply.statusText);
  return operationsOf((await reply.json()) as Described);
}

export const operationsOf = ({ paths, components }: Described): Asked[] =>
  Object.entries(paths).flatMap(([path, methods]) =>
    Object.entries(methods).map(([method, { operationId, requestBody, ...described }]) => ({
      ...described,
      id: operationId,
      method: method.toUpperCase(),
      path,
      takes: requestBody ? schemaOf(requestBody, components.schemas) : null,
    })),
  );

function schemaOf(body: NonNullable<DescribedOperation["requestBody"]>, schemas: Record<string, Schema>): Schema {
  const name = Object.values(body.content)[0]?.schema.$ref?.split("/").at(-1) ?? "";
  return schemas[name] ?? {};
}

/** A body to begin with: everything that must be there. */
export const blankOf = ({ properties = {}, required = [] }: Schema): string =>
  JSON.stringify(
    Object.fromEntries(
      Object.keys(properties)
        .filter((name) => required.includes(name))
        .map((name) => [name, {}]),
    ),
    null,
    2,
  );

/** Asks, and gives back what was answered, for people to read. */
export async function askFor(
  { method, path, parameters, takes }: Asked,
  credential: string,
  values: Readonly<Record<string, string>>,
  body: string,
): Promise<{ status: string; text: string }> {
  const given = (place: Parameter["in"]) =>
    parameters.flatMap((each): [string, string][] => {
      const value = values[each.name]?.trim();
      return each.in === place && value ? [[each.name, value]] : [];
    });
  const place = given("path").reduce(
    (text, [name, value]) => text.replace(`{${name}}`, encodeURIComponent(value)),
    path,
  );
  const query = new URLSearchParams(given("query"));
  const reply = await fetch(`${place}${query.size > 0 ? `?${query}` : ""}`, {
    method,
    credentials: "omit",
    headers: {
      ...Object.fromEntries(given("header")),
      Authorization: `Bearer ${credential}`,
      ...(takes ? { "Content-Type": "application/json" } : {}),
    },
    ...(takes ? { body } : {}),
    signal: AbortSignal.timeout(30_000),
  });
  const text = await reply.text();
  return { status: `${reply.status} ${reply.statusText}`, text: readable(text) };
}

function readable(text: string): string {
  try {
    return JSON.stringify(JSON.parse(text), null, 2);
  } catch {
    return text;
  }
}
