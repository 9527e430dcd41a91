// The sheet, with the real public components, and the margin level with its blocks.
import Box from "@mui/material/Box";
import IconButton from "@mui/material/IconButton";
import InputBase from "@mui/material/InputBase";
import { memo, type PropsWithChildren, useEffect, useMemo, useRef } from "react";
import type { BlockState } from "../../api/generated/wire";
import { Banner, brandStyle } from "../../form/Banner";
import { type Surroundings, SurroundingsContext } from "../../fields/input";
import { BlockOnPage } from "../../form/BlockOnPage";
import { linesOf } from "../../form/lines";
import { type Block, type Page, titleOf, typeOf } from "../../model/blocks";
import { SERIF } from "../../theme/theme";
import { useBench } from "../workbench/bench";
import type { AddAt } from "./AddBlock";
import { Margin } from "./Margin";
import { stillSurroundings } from "./still";
import type { ComposeActions } from "./useComposeActions";

interface Props {
  actions: ComposeActions;
  onAdd: (at: AddAt) => void;
}

const COLUMNS = "minmax(0, 1fr) 232px";

export function Sheet({ actions, onAdd }: Props) {
  const { form, select } = useBench();
  return (
    <Box
      aria-label="Sheet and margin"
      role="region"
      sx={{ overflow: "auto", p: 2.5, pb: 8 }}
      onClick={(event) => event.target === event.currentTarget && select(null)}
    >
      <Box sx={{ position: "relative", minHeight: "100%" }}>
        <Box
          aria-hidden="true"
          sx={{
            position: "absolute",
            inset: "0 232px 0 0",
            border: 1,
            borderColor: "divider",
            borderRadius: 1,
            bgcolor: "sheet.paper",
          }}
        />
        <Row>
          <Box
            className="codexa-form"
            style={brandStyle(form.brand)}
            sx={{ m: "1px", borderRadius: "6px 6px 0 0 !important" }}
          >
            <SheetTitle />
          </Box>
        </Row>
        {form.pages.map((page, index) => (
          <SheetPage key={page.id} page={page} number={String(index + 1)} actions={actions} onAdd={onAdd} />
        ))}
      </Box>
    </Box>
  );
}

function Row({ children, margin }: PropsWithChildren<{ margin?: React.ReactNode }>) {
  return (
    <Box sx={{ position: "relative", display: "grid", gridTemplateColumns: COLUMNS, alignItems: "start" }}>
      <Box sx={{ minWidth: 0 }}>{children}</Box>
      <Box>{margin}</Box>
    </Box>
  );
}

/** The title and lead of the form, typed where they stand. */
function SheetTitle() {
  const { form, act, mayEdit } = useBench();
  const field = (setting: "title" | "lead", placeholder: string, size: number) => (
    <InputBase
      fullWidth
      multiline
      readOnly={!mayEdit}
      value={form[setting]}
      placeholder={placeholder}
      onChange={(event) => act({ do: "edit_form", changes: { [setting]: event.target.value } })}
      inputProps={{ "aria-label": setting === "title" ? "Title for visitors" : "Lead below the title" }}
      sx={{
        p: 0,
        color: "inherit",
        fontFamily: size > 20 ? SERIF : undefined,
        fontWeight: size > 20 ? 600 : 400,
        fontSize: size,
        lineHeight: size > 20 ? "32px" : "24px",
        "& ::placeholder": { color: "inherit", opacity: 0.85 },
      }}
    />
  );
  if (!mayEdit) return <Banner face={form} />;
  return (
    <div className="cx-banner">
      {field("title", "Title for visitors", 24)}
      {field("lead", "A line below the title", 16)}
    </div>
  );
}

function SheetPage({ page, number, actions, onAdd }: Props & { page: Page; number: string }) {
  const { form, act, mayEdit } = useBench();
  let at = 0;
  return (
    <Box component="section" aria-label={`Page ${number}`} sx={{ pt: 2.5 }}>
      <Row>
        <Box sx={{ display: "flex", alignItems: "baseline", pl: 1.5, pr: 2.5 }}>
          <Box component="span" sx={{ width: 36, fontFamily: SERIF, fontWeight: 600, color: "sheet.quiet" }}>
            {number}
          </Box>
          <InputBase
            fullWidth
            readOnly={!mayEdit}
            value={page.title}
            placeholder="Title of this page"
            onChange={(event) => act({ do: "edit_page", page: page.id, changes: { title: event.target.value } })}
            inputProps={{ "aria-label": `Title of page ${number}` }}
            sx={{ fontFamily: SERIF, fontWeight: 600, fontSize: 21, color: "sheet.ink" }}
          />
          {mayEdit && form.pages.length > 1 && (
            <IconButton
              aria-label={`Delete page ${number} with its blocks`}
              title="Delete this page with its blocks"
              onClick={() => actions.removePage(page.id)}
              sx={{ width: 28, height: 28, fontSize: 16, color: "sheet.quiet" }}
            >
              ×
            </IconButton>
          )}
        </Box>
      </Row>
      {mayEdit && (
        <InsertLine
          label={`Insert at the start of page ${number}`}
          onAdd={(anchor) => onAdd({ anchor, place: { page: page.id, at: 0 } })}
        />
      )}
      {linesOf(page.blocks).map((line) => {
        at += line.length;
        const after = at;
        return (
          <Box key={line[0]!.id}>
            <SheetLine line={line} number={number} first={after - line.length} actions={actions} />
            {mayEdit && (
              <InsertLine
                label={`Insert after ${number}.${after}`}
                onAdd={(anchor) => onAdd({ anchor, place: { page: page.id, at: after } })}
              />
            )}
          </Box>
        );
      })}
    </Box>
  );
}

function SheetLine({
  line,
  number,
  first,
  actions,
}: {
  line: Block[];
  number: string;
  first: number;
  actions: ComposeActions;
}) {
  const { form, analysis } = useBench();
  return (
    <Row
      margin={line.map((block) => (
        <Margin key={block.id} block={block} actions={actions} />
      ))}
    >
      <Box
        className="codexa-form"
        style={brandStyle(form.brand)}
        sx={{ px: 1.5, mx: "1px", bgcolor: "transparent !important", overflow: "visible !important" }}
      >
        <div className="cx-line">
          {line.map((block, index) => (
            <div key={block.id} className={`cx-block cx-${block.width}`}>
              <BlockOnSheet
                block={block}
                number={`${number}.${first + index + 1}`}
                facts={analysis.state.blocks[block.id]}
              />
            </div>
          ))}
        </div>
      </Box>
    </Row>
  );
}

interface BlockOnSheetProps {
  block: Block;
  number: string;
  facts: BlockState | undefined;
}

function BlockOnSheet({ block, number, facts }: BlockOnSheetProps) {
  const { block: selected, select, form, analysis } = useBench();
  const chosen = selected === block.id;
  const around = useMemo(() => stillSurroundings(form, analysis.state), [form, analysis.state]);
  const place = useRef<HTMLDivElement>(null);
  useEffect(() => {
    if (chosen) place.current?.scrollIntoView({ block: "nearest" });
  }, [chosen]);
  const hidden = facts ? !facts.shown : false;
  return (
    <Box
      ref={place}
      sx={{
        position: "relative",
        display: "flex",
        p: 1,
        borderRadius: 1,
        outline: chosen ? "2px solid" : undefined,
        outlineColor: "sheet.action",
        "&:hover": { bgcolor: chosen ? undefined : "sheet.hover" },
      }}
    >
      <Box
        component="button"
        type="button"
        aria-pressed={chosen}
        aria-label={`${number} ${titleOf(block)}, ${typeOf(block.type).title}${hidden ? ", hidden at first" : ""}`}
        onClick={() => select(block.id)}
        onDoubleClick={() => select(block.id, "label")}
        onKeyDown={(event) => {
          if (event.key !== "Enter") return;
          event.preventDefault();
          select(block.id, "label");
        }}
        sx={{
          position: "absolute",
          inset: 0,
          zIndex: 1,
          p: 0,
          background: "none",
          border: 0,
          borderRadius: 1,
          cursor: "pointer",
        }}
      />
      <Box
        component="span"
        aria-hidden="true"
        sx={{
          width: 30,
          flex: "none",
          fontFamily: SERIF,
          fontSize: 14,
          fontWeight: chosen ? 650 : 400,
          color: chosen ? "sheet.action" : "sheet.quiet",
        }}
      >
        {number}
      </Box>
      {hidden && (
        <Box component="span" sx={{ position: "absolute", right: 10, top: 8, fontSize: 12, color: "sheet.quiet" }}>
          hidden at first
        </Box>
      )}
      <Box inert sx={{ flex: 1, minWidth: 0, opacity: hidden ? 0.55 : 1 }}>
        <StillBlock block={block} facts={facts ?? SHOWN} around={around} />
      </Box>
    </Box>
  );
}

/** The public component itself, not to be filled in here; drawn again only when it changes. */
const StillBlock = memo(function StillBlock({
  block,
  facts,
  around,
}: {
  block: Block;
  facts: BlockState;
  around: Surroundings;
}) {
  const shown = facts.shown ? facts : SHOWN;
  return (
    <SurroundingsContext value={around}>
      <BlockOnPage block={block} answer={around.answerOf(block.id)} facts={shown} error={null} onChange={ignore} />
    </SurroundingsContext>
  );
});

const SHOWN: BlockState = { shown: true };
const ignore = () => undefined;

function InsertLine({ label, onAdd }: { label: string; onAdd: (anchor: HTMLElement) => void }) {
  return (
    <Row>
      <Box
        sx={{
          position: "relative",
          height: 10,
          mx: 2,
          display: "grid",
          placeItems: "center",
          opacity: 0,
          "&:hover, &:focus-within": { opacity: 1 },
          "&::before": {
            content: '""',
            position: "absolute",
            insetInline: 0,
            top: "50%",
            borderTop: 1,
            borderColor: "primary.main",
          },
        }}
      >
        <IconButton
          aria-label={label}
          onClick={(event) => onAdd(event.currentTarget)}
          sx={{
            position: "absolute",
            zIndex: 1,
            width: 22,
            height: 22,
            fontSize: 16,
            color: "primary.contrastText",
            bgcolor: "primary.main",
            "&:hover": { bgcolor: "primary.dark" },
          }}
        >
          +
        </IconButton>
      </Box>
    </Row>
  );
}
