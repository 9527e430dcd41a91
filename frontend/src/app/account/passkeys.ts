// Passkeys in the browser, by the standard's own ways to and from JSON (Web Authentication, level 3).

/** Whether this page can ask for one: an address of numbers can have none, and older browsers don't know them. */
export const mayUsePasskeys = (): boolean =>
  typeof PublicKeyCredential !== "undefined" &&
  "parseCreationOptionsFromJSON" in PublicKeyCredential &&
  !/^[\d.:[\]]+$/.test(location.hostname);

type Options = Record<string, unknown>;

/** Has the browser make one, and returns it as JSON. Rejects where the person does not want to. */
export async function makePasskey(options: Options): Promise<Options> {
  const publicKey = PublicKeyCredential.parseCreationOptionsFromJSON(
    options as unknown as PublicKeyCredentialCreationOptionsJSON,
  );
  return asJson(await navigator.credentials.create({ publicKey }));
}

/** Has the browser show one, and returns what it signed as JSON. Rejects where there is none, or it is not wanted. */
export async function showPasskey(options: Options): Promise<Options> {
  const publicKey = PublicKeyCredential.parseRequestOptionsFromJSON(
    options as unknown as PublicKeyCredentialRequestOptionsJSON,
  );
  return asJson(await navigator.credentials.get({ publicKey }));
}

const asJson = (made: Credential | null): Options => (made as PublicKeyCredential).toJSON() as unknown as Options;
