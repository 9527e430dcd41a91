// Charts of what is filtered, chosen well at first; others are added, compared, removed, and kept with a view.
import Box from "@mui/material/Box";
import { useMemo } from "react";
import type { AskingReply } from "../../api/generated/wire";
import { FindByTyping } from "../../ui/FindByTyping";
import { PopoverButton } from "../../ui/PopoverButton";
import { usualCharts } from "./chart_kinds";
import { ChartCard } from "./ChartCard";
import { finder } from "../filter/FilterBar";
import { columnsById } from "../filter/asked";
import type { Look } from "./look";

interface Props {
  formId: string;
  asking: AskingReply;
  look: Look;
  onLook: (changes: Partial<Look>) => void;
}

export function ChartsView({ formId, asking, look, onLook }: Props) {
  const byId = useMemo(() => columnsById(asking.columns), [asking.columns]);
  const charts = chartsOf(asking, look);
  const put = (at: number, pair: readonly [string, string] | null) =>
    onLook({ charts: charts.flatMap((each, place) => (place !== at ? [each] : pair ? [pair] : [])) });
  return (
    <Box
      sx={{
        flex: 1,
        overflow: "auto",
        display: "grid",
        gap: 1.5,
        gridTemplateColumns: "repeat(auto-fill, minmax(360px, 1fr))",
        alignContent: "start",
        pb: 2,
      }}
    >
      {charts.map(([id, by], at) => {
        const column = byId.get(id);
        return (
          column && (
            <ChartCard
              key={`${id} ${by}`}
              {...{ formId, column, look }}
              by={byId.get(by)}
              columns={asking.columns}
              onBy={(to) => put(at, [id, to])}
              onRemove={() => put(at, null)}
            />
          )
        );
      })}
    </Box>
  );
}

const chartsOf = (asking: AskingReply, look: Look): readonly (readonly [string, string])[] =>
  look.charts ?? usualCharts(asking);

const FIND = {
  placeholder: "Chart a field …",
  box: "Chart a field",
  list: "Fields",
  nothing: "No field is called so.",
};

export function AddChart({ asking, look, onLook }: Omit<Props, "formId">) {
  return (
    <PopoverButton label="Add a chart" name="Add a chart" width={340}>
      {(close) => (
        <>
          <FindByTyping
            find={finder(asking.columns)}
            onPick={({ id }) => {
              close();
              onLook({ charts: [[id, ""], ...chartsOf(asking, look)] });
            }}
            words={FIND}
          />
        </>
      )}
    </PopoverButton>
  );
}
