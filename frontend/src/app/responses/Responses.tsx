// Responses: a grid that the server pages, one response beside it, and the export.
import Alert from "@mui/material/Alert";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Typography from "@mui/material/Typography";
import { DataGrid, type GridColDef } from "@mui/x-data-grid";
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { useNavigate, useParams, useSearchParams } from "react-router";
import type { ColumnReply, ResponsesReply, RowReply } from "../../api/generated/wire";
import { queries } from "../../api/queries";
import { counted } from "../../text/words";
import { SERIF } from "../../theme/theme";
import { styleNonce } from "../style_nonce";
import { useDayAndTime } from "../workbench/useDayAndTime";
import { AsCsv } from "./AsCsv";
import { HeldResponses } from "./HeldResponses";
import { SingleResponse } from "./SingleResponse";

const PAGE_SIZES = [25, 50, 100];

export function Responses({ formId }: { formId: string }) {
  const [page, setPage] = useState({ page: 0, pageSize: 25 });
  // Where each page begins that was reached: the server goes on from the last response of the page before.
  const [begins, setBegins] = useState<readonly string[]>([""]);
  const { response } = useParams();
  const navigate = useNavigate();
  const [query, setQuery] = useSearchParams();
  const link = query.get("link") ?? "";
  const found = useQuery(queries.responses(formId, page.pageSize, begins[page.page] ?? "", link));
  const turn = (to: { page: number; pageSize: number }) => {
    if (to.pageSize !== page.pageSize) {
      setBegins([""]);
      setPage({ page: 0, pageSize: to.pageSize });
    } else if (to.page < begins.length || found.data?.next) {
      if (to.page === begins.length) setBegins([...begins, found.data!.next!]);
      setPage(to);
    }
  };
  const open = (number: number | null) =>
    void navigate({
      pathname: `/forms/${formId}/responses${number === null ? "" : `/${number}`}`,
      search: query.toString(),
    });
  return (
    <Box
      sx={{ height: "100%", display: "grid", gridTemplateColumns: response ? "minmax(0,1fr) 380px" : "minmax(0,1fr)" }}
    >
      <Box sx={{ display: "flex", flexDirection: "column", p: 2, pt: 1.5, minHeight: 0 }}>
        <Box sx={{ display: "flex", alignItems: "center", gap: 1.5, mb: 1.5 }}>
          <Typography variant="h1">Responses</Typography>
          <Typography color="text.secondary" sx={{ flex: 1 }}>
            {found.data && `${counted(found.data.count, "response")}${link && " by one sealed link"}, newest first`}
          </Typography>
          {link && (
            <Button
              color="inherit"
              variant="outlined"
              onClick={() => {
                setBegins([""]);
                setPage({ ...page, page: 0 });
                setQuery({});
              }}
            >
              Show all
            </Button>
          )}
          <AsCsv formId={formId} />
        </Box>
        {found.isError && (
          <Alert severity="error" action={<Button onClick={() => void found.refetch()}>Try again</Button>}>
            {found.error.message}
          </Alert>
        )}
        <HeldResponses formId={formId} />
        {found.data?.count === 0 ? (
          <NoneYet />
        ) : (
          <Grid
            data={found.data}
            page={page}
            loading={found.isFetching}
            selected={response}
            onPage={turn}
            onOpen={open}
          />
        )}
      </Box>
      {response && <SingleResponse formId={formId} number={Number(response)} onClose={() => open(null)} />}
    </Box>
  );
}

interface GridProps {
  data: ResponsesReply | undefined;
  page: { page: number; pageSize: number };
  loading: boolean;
  selected: string | undefined;
  onPage: (page: { page: number; pageSize: number }) => void;
  onOpen: (number: number) => void;
}

function Grid({ data, page, loading, selected, onPage, onOpen }: GridProps) {
  const dayAndTime = useDayAndTime();
  return (
    <DataGrid
      aria-label="Responses"
      rows={data?.rows ?? []}
      columns={columnsOf(data?.columns ?? [], dayAndTime)}
      getRowId={(row) => row.number}
      rowCount={data?.count ?? 0}
      loading={loading}
      paginationMode="server"
      paginationModel={page}
      onPaginationModelChange={onPage}
      pageSizeOptions={PAGE_SIZES}
      density="compact"
      hideFooterSelectedRowCount
      nonce={styleNonce()}
      // Its spinner has no name for screen readers.
      slotProps={{ loadingOverlay: { variant: "skeleton", noRowsVariant: "skeleton" } }}
      disableColumnSorting
      disableColumnFilter
      disableColumnMenu
      rowSelectionModel={{ type: "include", ids: new Set(selected ? [Number(selected)] : []) }}
      onRowClick={({ row }) => onOpen((row as RowReply).number)}
      onCellKeyDown={({ row }, event) => event.key === "Enter" && onOpen((row as RowReply).number)}
      sx={{
        flex: 1,
        minHeight: 0,
        bgcolor: "background.paper",
        "& .numeric": { fontFamily: SERIF, fontSize: 14, fontVariantNumeric: "tabular-nums lining-nums" },
        "& .MuiDataGrid-row": { cursor: "pointer" },
        "& .MuiDataGrid-columnHeaderTitle": { fontWeight: 650, fontSize: 12 },
      }}
    />
  );
}

function columnsOf(columns: ColumnReply[], dayAndTime: (iso: string) => string): GridColDef<RowReply>[] {
  return [
    {
      field: "number",
      headerName: "No.",
      width: 64,
      align: "right",
      headerAlign: "right",
      valueFormatter: (value: number, { test }) => (test ? `try ${value}` : value),
    },
    {
      field: "received_at",
      headerName: "Received",
      width: 116,
      valueFormatter: (value: string) => dayAndTime(value),
    },
    ...columns.map((column): GridColDef<RowReply> => ({
      field: column.id,
      headerName: `${column.number} ${column.label}${column.earlier ? " (earlier edition)" : ""}`.trim(),
      minWidth: 110,
      flex: column.numeric ? 0.7 : 1,
      align: column.numeric ? "right" : "left",
      headerAlign: column.numeric ? "right" : "left",
      cellClassName: column.numeric ? "numeric" : "",
      valueGetter: (_value, row) => row.cells[column.id] ?? "",
    })),
    { field: "edition", headerName: "Edition", width: 70, align: "right", headerAlign: "right" },
  ];
}

function NoneYet() {
  return (
    <Box sx={{ p: 4 }}>
      <Typography variant="h2">No response yet</Typography>
      <Typography color="text.secondary">
        What visitors send stands here, newest first, with everything that was worked out. Publish the form and share
        its link.
      </Typography>
    </Box>
  );
}
