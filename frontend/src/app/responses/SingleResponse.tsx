// One response as a sheet: every answer and everything that was worked out.
import Alert from "@mui/material/Alert";
import Box from "@mui/material/Box";
import IconButton from "@mui/material/IconButton";
import Typography from "@mui/material/Typography";
import { useQuery } from "@tanstack/react-query";
import { useEffect, useRef } from "react";
import { queries } from "../../api/queries";
import { asDayAndTime, NOTE_KINDS } from "../../text/words";
import { SERIF } from "../../theme/theme";
import { Waiting } from "../Waiting";

interface Props {
  formId: string;
  number: number;
  onClose: () => void;
}

export function SingleResponse({ formId, number, onClose }: Props) {
  const found = useQuery(queries.response(formId, number));
  const title = useRef<HTMLHeadingElement>(null);
  useEffect(() => {
    title.current?.focus();
  }, [number]);
  return (
    <Box
      component="aside"
      aria-label={`Response ${number}`}
      onKeyDown={(event) => event.key === "Escape" && onClose()}
      sx={{ borderLeft: 1, borderColor: "divider", bgcolor: "background.paper", overflow: "auto" }}
    >
      <Box sx={{ display: "flex", alignItems: "center", px: 2.5, pt: 1.75 }}>
        <Typography
          ref={title}
          tabIndex={-1}
          variant="h1"
          component="h2"
          sx={{ flex: 1, fontSize: 20, "&:focus": { outline: "none" } }}
        >
          Response {number}
        </Typography>
        <IconButton aria-label="Close" onClick={onClose} sx={{ width: 30, height: 30, fontSize: 18 }}>
          ×
        </IconButton>
      </Box>
      {found.isPending && <Waiting />}
      {found.isError && <Alert severity="error">{found.error.message}</Alert>}
      {found.data && (
        <Box sx={{ px: 2.5, pb: 3 }}>
          <Typography variant="body2" color="text.secondary" sx={{ mb: 2 }}>
            Received {asDayAndTime(found.data.row.received_at)} · edition {found.data.row.edition}
          </Typography>
          <Box component="dl" sx={{ m: 0, display: "grid", gap: 1.5 }}>
            {found.data.columns.map((column) => {
              const text = found.data.row.cells[column.id];
              return (
                <Box key={column.id}>
                  <Typography component="dt" variant="body2" color="text.secondary">
                    <Box component="span" sx={{ fontFamily: SERIF }}>
                      {column.number}
                    </Box>{" "}
                    {column.label}
                    {column.calculated && (
                      <Box
                        component="span"
                        role="img"
                        aria-label="Calculated"
                        sx={{ ml: 0.75, color: "note.calculation" }}
                      >
                        {NOTE_KINDS.calculation.sign}
                      </Box>
                    )}
                  </Typography>
                  <Typography
                    component="dd"
                    sx={{
                      m: 0,
                      overflowWrap: "anywhere",
                      whiteSpace: "pre-line",
                      fontWeight: text ? 600 : 400,
                      color: text ? "text.primary" : "text.secondary",
                    }}
                  >
                    {text ?? "not answered"}
                  </Typography>
                </Box>
              );
            })}
          </Box>
        </Box>
      )}
    </Box>
  );
}
