// The form's first page as it will look: the public components themselves, with the brand as it is being chosen.
import Box from "@mui/material/Box";
import { useMemo } from "react";
import type { Brand } from "../../api/generated/wire";
import { SurroundingsContext } from "../../fields/input";
import { Banner } from "../../form/Banner";
import { BlockList } from "../../form/BlockList";
import { groundStyle } from "../../form/brand";
import { Progress } from "../../form/Progress";
import { stillSurroundings } from "../compose/still";
import { StillForm } from "../compose/StillForm";
import { useShownWords } from "./words_of";
import { useBench } from "../workbench/bench";

/** What the layouts with a picture take beside the form's own width. */
const WIDER: Partial<Record<Brand["layout"], string>> = { beside: " * 1.5", behind: " + 112px" };

export function BrandSample() {
  const { form, analysis } = useBench();
  const around = useMemo(() => stillSurroundings(analysis.state, null), [analysis.state]);
  const [page] = form.pages;
  const { brand } = form;
  const words = useShownWords(form);
  return (
    <Box
      component="section"
      aria-label="How the form looks"
      tabIndex={0}
      sx={{ overflow: "auto", p: 3, backgroundSize: "cover", backgroundPosition: "center" }}
      style={groundStyle(brand)}
    >
      <StillForm
        drawn
        layout
        sx={{
          maxWidth: brand.layout === "wide" ? "none" : `calc(var(--cx-width)${WIDER[brand.layout] ?? ""})`,
          mx: "auto",
          boxShadow: brand.layout === "bare" ? 0 : 1,
        }}
      >
        <Banner face={form} />
        {form.progress.length > 0 && page && (
          <Progress face={form} state={analysis.state} page={page.id} done={false} />
        )}
        <SurroundingsContext value={around}>
          <form inert>
            <section className="cx-page">
              {page?.title && <h2>{page.title}</h2>}
              <BlockList blocks={page?.blocks ?? []} />
            </section>
            <div className="cx-buttons">
              {form.presentation !== "whole" && (
                <button type="button" className="cx-back">
                  {page?.back_label || words("back")}
                </button>
              )}
              <button type="button" className="cx-submit">
                {form.presentation !== "whole" && form.pages.length > 1
                  ? page?.next_label || words("next")
                  : words("submit")}
              </button>
            </div>
          </form>
        </SurroundingsContext>
      </StillForm>
    </Box>
  );
}
