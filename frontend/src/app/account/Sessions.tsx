// Where one is signed in: each of these can be ended.
import Alert from "@mui/material/Alert";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Typography from "@mui/material/Typography";
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { api, reasonOf } from "../../api/client";
import { queries } from "../../api/queries";
import { asDayAndTime } from "../../text/words";

export function Sessions() {
  const queryClient = useQueryClient();
  const found = useQuery({ ...queries.sessions(), staleTime: 0 });
  const end = useMutation({
    mutationFn: api.endSession,
    onSettled: () => queryClient.invalidateQueries({ queryKey: queries.sessions().queryKey }),
  });
  const problem = found.error ?? end.error;
  return (
    <Box component="section" aria-labelledby="sessions" sx={{ maxWidth: 480 }}>
      <Typography variant="h2" id="sessions" sx={{ mb: 1 }}>
        Where you are signed in
      </Typography>
      {problem && <Alert severity="error">{reasonOf(problem)}</Alert>}
      <Box component="ul" sx={{ m: 0, p: 0, listStyle: "none" }}>
        {(found.data?.sessions ?? []).map(({ id, program, created_at, seen_at, own }) => (
          <Box
            component="li"
            key={id}
            sx={{ display: "flex", gap: 2, alignItems: "center", py: 1, borderBottom: 1, borderColor: "divider" }}
          >
            <Box sx={{ flex: 1, minWidth: 0 }}>
              <Typography sx={{ fontWeight: 600 }}>
                {browserIn(program)}
                {own && ", here"}
              </Typography>
              <Typography variant="body2" color="text.secondary">
                since {asDayAndTime(created_at)}, used {asDayAndTime(seen_at)}
              </Typography>
            </Box>
            {!own && (
              <Button
                color="inherit"
                aria-label={`End the session of ${browserIn(program)}, since ${asDayAndTime(created_at)}`}
                onClick={() => end.mutate(id)}
              >
                End
              </Button>
            )}
          </Box>
        ))}
      </Box>
    </Box>
  );
}

const BROWSERS = ["Edg", "OPR", "Firefox", "Chrome", "Safari"] as const;
const SYSTEMS = ["Android", "iPhone", "iPad", "Windows", "Mac OS", "Linux"] as const;
const NAMES: Readonly<Record<string, string>> = { Edg: "Edge", OPR: "Opera" };

/** What a browser says that it is, in short; other programs say little, and are told as they are. */
export function browserIn(program: string): string {
  const browser = BROWSERS.find((each) => program.includes(`${each}/`));
  const system = SYSTEMS.find((each) => program.includes(each));
  if (!browser) return program.slice(0, 60) || "A program that does not say what it is";
  return [NAMES[browser] ?? browser, system].filter(Boolean).join(" on ");
}
