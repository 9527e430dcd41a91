// A form from one of our own templates, as rows that say what each is for.
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Typography from "@mui/material/Typography";
import { useMutation, useQuery } from "@tanstack/react-query";
import { useNavigate } from "react-router";
import { api } from "../../api/client";
import { queries } from "../../api/queries";
import { counted } from "../../text/words";
import { Waiting } from "../Waiting";
import { StartPage } from "./StartPage";

export function FromTemplate() {
  const found = useQuery(queries.templates());
  const navigate = useNavigate();
  const make = useMutation({
    mutationFn: api.makeFromTemplate,
    onSuccess: ({ id }) => navigate(`/forms/${id}/compose`),
  });
  return (
    <StartPage
      title="From a template"
      lead="Each is a whole form with its rules and figures; everything in it can be changed."
    >
      {found.isPending && <Waiting />}
      {(found.isError || make.isError) && (
        <Typography role="alert" color="error">
          {(found.error ?? make.error)!.message}
        </Typography>
      )}
      <Box
        component="ul"
        sx={{
          m: 0,
          p: 0,
          listStyle: "none",
          overflow: "auto",
          border: 1,
          borderColor: "divider",
          borderRadius: 1,
          bgcolor: "background.paper",
        }}
      >
        {found.data?.templates.map((template) => (
          <Box
            component="li"
            key={template.name}
            sx={{
              display: "grid",
              gridTemplateColumns: "minmax(0,1fr) 300px 150px",
              gap: 2,
              alignItems: "center",
              px: 2,
              py: 1.25,
              borderBottom: 1,
              borderColor: "divider",
            }}
          >
            <Box>
              <Typography component="h2" sx={{ fontWeight: 650 }}>
                {template.title}
              </Typography>
              <Typography color="text.secondary">{template.purpose}</Typography>
            </Box>
            <Box>
              <Typography variant="body2">{template.shows}</Typography>
              <Typography variant="body2" color="text.secondary">
                {[
                  counted(template.pages, "page"),
                  counted(template.fields, "field"),
                  counted(template.rules, "rule"),
                  template.figures > 0 && counted(template.figures, "figure"),
                ]
                  .filter(Boolean)
                  .join(" · ")}
              </Typography>
            </Box>
            <Button
              variant="outlined"
              aria-label={`Begin with this: ${template.title}`}
              loading={make.isPending && make.variables === template.name}
              onClick={() => make.mutate(template.name)}
            >
              Begin with this
            </Button>
          </Box>
        ))}
      </Box>
    </StartPage>
  );
}
