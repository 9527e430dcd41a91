// The form's first page as it will look: the public components themselves, with the brand as it is being chosen.
import Box from "@mui/material/Box";
import { useMemo } from "react";
import { SurroundingsContext } from "../../fields/input";
import { Banner } from "../../form/Banner";
import { BlockList } from "../../form/BlockList";
import { groundStyle } from "../../form/brand";
import { Progress } from "../../form/Progress";
import { stillSurroundings } from "../compose/still";
import { StillForm } from "../compose/StillForm";
import { useBench } from "../workbench/bench";

export function BrandSample() {
  const { form, analysis } = useBench();
  const around = useMemo(() => stillSurroundings(analysis.state, null), [analysis.state]);
  const [page] = form.pages;
  const { brand, wording } = form;
  return (
    <Box
      component="section"
      aria-label="How the form looks"
      tabIndex={0}
      sx={{ overflow: "auto", p: 3, backgroundSize: "cover", backgroundPosition: "center" }}
      style={groundStyle(brand)}
    >
      <StillForm drawn sx={{ maxWidth: 720, mx: "auto", boxShadow: 1 }}>
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
                  {page?.back_label || wording.back}
                </button>
              )}
              <button type="button" className="cx-submit">
                {form.presentation !== "whole" && form.pages.length > 1
                  ? page?.next_label || wording.next
                  : wording.submit}
              </button>
            </div>
          </form>
        </SurroundingsContext>
      </StillForm>
    </Box>
  );
}
