import { useMemo } from "react";
import type { AddressFace } from "../../api/generated/wire";
import { say } from "../../text/visitor";
import { type InputProps, partsOf, textOf, useTools } from "../input";
import { type PartBox, PartBoxes } from "../parts";
import { COUNTRIES } from "./countries";

const BOXES: readonly PartBox[] = [
  { name: "street", label: "street", autoComplete: "address-line1", needed: true },
  { name: "extra", label: "extra", autoComplete: "address-line2", needed: false },
  { name: "postal_code", label: "postal_code", autoComplete: "postal-code", width: "third", needed: false },
  { name: "town", label: "town", autoComplete: "address-level2", width: "half", needed: true },
];

export function AddressInput(props: InputProps<AddressFace>) {
  const { block, controlId, answer, locked, required, onChange } = props;
  const { locale } = useTools();
  const countries = useMemo(() => (block.country ? named(locale) : []), [block.country, locale]);
  const placeholders: Record<string, string> = {
    street: block.placeholder_street,
    postal_code: block.placeholder_postal_code,
    town: block.placeholder_town,
  };
  const boxes = <PartBoxes {...props} boxes={BOXES.map((box) => ({ ...box, placeholder: placeholders[box.name] }))} />;
  if (!block.country) return boxes;
  const given = partsOf(answer);
  return (
    <>
      {boxes}
      <label className="cx-part cx-country">
        <span>{say("country")}</span>
        <select
          id={`${controlId}-country`}
          className="cx-input"
          autoComplete="country"
          disabled={locked}
          aria-required={required || undefined}
          value={textOf(given.country ?? null)}
          onChange={(event) => onChange({ ...given, country: event.target.value || null })}
        >
          <option value="">{say("choose")}</option>
          {countries.map(({ code, name }) => (
            <option key={code} value={code}>
              {name}
            </option>
          ))}
        </select>
      </label>
    </>
  );
}

function named(locale: string): { code: string; name: string }[] {
  const language = locale.replace("_", "-");
  const names = new Intl.DisplayNames([language], { type: "region" });
  return COUNTRIES.map((code) => ({ code, name: names.of(code) ?? code })).sort((one, other) =>
    one.name.localeCompare(other.name, language),
  );
}
