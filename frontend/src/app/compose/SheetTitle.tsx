// The title and lead of the form on the sheet.
import InputBase from "@mui/material/InputBase";
import { Banner, BannerFrame } from "../../form/Banner";
import { useBench } from "../workbench/bench";
import { oneLine } from "../../text/words";
import { GROWS } from "../../ui/LongTextField";

/** Typed where they stand. */
export function SheetTitle() {
  const { form, act, mayEdit } = useBench();
  const field = (setting: "title" | "lead", placeholder: string, size: number) => (
    <InputBase
      {...GROWS}
      fullWidth
      value={form[setting]}
      placeholder={placeholder}
      // A title is one line, however it is pasted.
      onChange={({ target: { value } }) =>
        act({ do: "edit_form", changes: { [setting]: setting === "title" ? oneLine(value) : value } })
      }
      inputProps={{ "aria-label": setting === "title" ? "Title for visitors" : "Lead below the title" }}
      sx={{
        p: 0,
        color: "inherit",
        fontFamily: size > 20 ? "var(--cx-heading-face)" : "var(--cx-face)",
        fontWeight: size > 20 ? 600 : 400,
        fontSize: size,
        lineHeight: size > 20 ? "32px" : "24px",
        "& ::placeholder": { color: "inherit", opacity: 0.85 },
      }}
    />
  );
  if (!mayEdit) return <Banner face={form} />;
  return (
    <BannerFrame brand={form.brand}>
      {field("title", "Title for visitors", 24)}
      {field("lead", "A line below the title", 16)}
    </BannerFrame>
  );
}
