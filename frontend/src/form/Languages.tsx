// The languages in which the form can be filled in: each leads to the same page in its words.
import type { FormFace } from "../api/generated/wire";
import { say } from "../text/visitor";

/** The address of this page in a language, with all else that it asks for. */
function addressIn(locale: string): string {
  const query = new URLSearchParams(location.search);
  query.set("codexa-language", locale);
  return `?${query}`;
}

export const Languages = ({ face }: { face: FormFace }) => (
  <nav className="cx-languages" aria-label={say("languages")}>
    {face.languages.map(({ locale, name }) => (
      <a
        key={locale}
        href={addressIn(locale)}
        lang={locale.replace("_", "-")}
        hrefLang={locale.replace("_", "-")}
        aria-current={locale === face.locale || undefined}
      >
        {name}
      </a>
    ))}
  </nav>
);
