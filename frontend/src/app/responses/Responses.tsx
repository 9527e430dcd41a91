// Responses: a filter above, and what it chooses as a table, as charts, or on a board; one response beside it.
import Alert from "@mui/material/Alert";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Tab from "@mui/material/Tab";
import Tabs from "@mui/material/Tabs";
import Typography from "@mui/material/Typography";
import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { useEffect, useState } from "react";
import { useNavigate, useParams, useSearchParams } from "react-router";
import { ApiError } from "../../api/client";
import type { AskingReply } from "../../api/generated/wire";
import { queries } from "../../api/queries";
import { Waiting } from "../Waiting";
import { BoardView } from "./BoardView";
import { AddChart, ChartsView } from "./ChartsView";
import { Bulks } from "./Bulks";
import { ColumnsMenu } from "./ColumnsMenu";
import { Export } from "./Export";
import { FilterBar } from "../filter/FilterBar";
import { FunnelView } from "./FunnelView";
import { HeldResponses } from "./HeldResponses";
import { Import } from "./Import";
import { Keeping } from "./Keeping";
import { askedOf, isFiltered, refusedOf } from "../filter/asked";
import { type Look, lookOfContent, queryOf, type Shown, useLook } from "./look";
import { inWords } from "./Pager";
import { SingleResponse } from "./SingleResponse";
import { TableView } from "./TableView";
import { ViewMenu } from "./ViewMenu";

const TABS: readonly { shown: Shown; title: string }[] = [
  { shown: "table", title: "Table" },
  { shown: "charts", title: "Charts" },
  { shown: "board", title: "Board" },
  { shown: "funnel", title: "Funnel" },
];

export function Responses({ formId }: { formId: string }) {
  const { response } = useParams();
  const navigate = useNavigate();
  const [query] = useSearchParams();
  const [look, onLook] = useLook();
  const asking = useQuery(queries.asking(formId));
  const views = useOpenedFirst(formId);
  const [importing, setImporting] = useState(false);
  const selected = response === undefined ? null : Number(response);
  const open = (number: number | null) =>
    void navigate({
      pathname: `/forms/${formId}/responses${number === null ? "" : `/${number}`}`,
      search: query.toString(),
    });
  if (asking.isPending || views === null) return <Waiting />;
  if (asking.isError)
    return (
      <Alert severity="error" action={<Button onClick={() => void asking.refetch()}>Try again</Button>}>
        {asking.error.message}
      </Alert>
    );
  return (
    <Box
      sx={{ height: "100%", display: "grid", gridTemplateColumns: response ? "minmax(0,1fr) 380px" : "minmax(0,1fr)" }}
    >
      <Box sx={{ display: "flex", flexDirection: "column", p: 2, pt: 1.5, minHeight: 0, minWidth: 0 }}>
        <Head formId={formId} asking={asking.data} look={look} onLook={onLook}>
          <ViewMenu key={look.view} formId={formId} views={views} look={look} onLook={onLook} />
          <Keeping formId={formId} />
          <Export formId={formId} look={look} onImport={() => setImporting(true)} />
        </Head>
        {importing && <Import formId={formId} onClose={() => setImporting(false)} />}
        <HeldResponses formId={formId} />
        <Bulks formId={formId} asking={asking.data} />
        {look.shown === "table" && (
          <TableView {...{ formId, look, onLook, selected }} asking={asking.data} onOpen={open} />
        )}
        {look.shown === "charts" && <ChartsView {...{ formId, look, onLook }} asking={asking.data} />}
        {look.shown === "board" && <BoardView {...{ formId, look, onLook }} asking={asking.data} onOpen={open} />}
        {look.shown === "funnel" && <FunnelView {...{ formId, look, onLook }} asking={asking.data} />}
      </Box>
      {selected !== null && (
        <SingleResponse formId={formId} number={selected} look={look} onOpen={open} onClose={() => open(null)} />
      )}
    </Box>
  );
}

/** The saved views; the one that opens first does so where the address asks for nothing. Null until that is known. */
function useOpenedFirst(formId: string) {
  const views = useQuery(queries.views(formId));
  const [query, setQuery] = useSearchParams();
  const first = views.data?.views.find((each) => each.opens_first);
  // Only as one comes: "All responses" is chosen afterwards, and asks for nothing either.
  const [came, setCame] = useState(query.toString() === "");
  const opens = came && first !== undefined;
  useEffect(() => {
    if (!opens) return;
    setQuery(queryOf(lookOfContent(first.content, first.id)), { replace: true });
    setCame(false);
  }, [opens, first, setQuery]);
  return views.isPending || opens ? null : (views.data?.views ?? []);
}

interface HeadProps {
  formId: string;
  asking: AskingReply;
  look: Look;
  onLook: (changes: Partial<Look>) => void;
  children: React.ReactNode;
}

function Head({ formId, asking, look, onLook, children }: HeadProps) {
  const asked = { ...askedOf(look), limit: "1", columns: "", sort: "" };
  const found = useQuery({ ...queries.responses(formId, asked), placeholderData: keepPreviousData, retry: false });
  const all = useQuery({
    ...queries.responses(formId, { limit: "1", columns: "" }),
    placeholderData: keepPreviousData,
    enabled: isFiltered(look),
  });
  const whole = isFiltered(look) ? all.data : found.data;
  const refused = found.error instanceof ApiError ? refusedOf(found.error) : null;
  return (
    <>
      <Box sx={{ display: "flex", alignItems: "start", gap: 1.5, mb: 1 }}>
        <Box sx={{ flex: 1, minWidth: 0 }}>
          <FilterBar of="Responses" columns={asking.columns} asked={look} refused={refused} onAsk={onLook} />
        </Box>
        {children}
      </Box>
      {found.isError && (
        <Alert severity="error" sx={{ mb: 1 }}>
          {found.error.message}
        </Alert>
      )}
      <Box sx={{ display: "flex", alignItems: "center", gap: 1.5, borderBottom: 1, borderColor: "divider", mb: 1.5 }}>
        <Tabs
          value={look.shown}
          onChange={(_event, shown: Shown) => onLook({ shown })}
          aria-label="Views"
          sx={{ flex: 1 }}
        >
          {TABS.map(({ shown, title }) => (
            <Tab key={shown} value={shown} label={title} />
          ))}
        </Tabs>
        <Typography color="text.secondary" role="status">
          {found.data && whole && (
            <>
              <b>{inWords(found.data)}</b>
              {isFiltered(look) && ` of ${inWords(whole)}`} {whole.count === 1 ? "response" : "responses"}
              {found.data.behind > 0 && ` · ${found.data.behind.toLocaleString("en")} more are being read in`}
            </>
          )}
        </Typography>
        {look.shown === "table" && <ColumnsMenu asking={asking} look={look} onLook={onLook} />}
        {look.shown === "charts" && <AddChart asking={asking} look={look} onLook={onLook} />}
      </Box>
    </>
  );
}
