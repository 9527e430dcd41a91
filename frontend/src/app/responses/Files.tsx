// The files of an answer: pictures are looked at here, everything else is downloaded.
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Dialog from "@mui/material/Dialog";
import DialogActions from "@mui/material/DialogActions";
import DialogContent from "@mui/material/DialogContent";
import DialogTitle from "@mui/material/DialogTitle";
import { useState } from "react";
import type { FileFace } from "../../api/generated/wire";
import { api } from "../../api/client";
import { PICTURES } from "../../fields/file_upload/pictures";
import { smallPicture } from "../../fields/small_picture";

export function Files({ formId, files }: { formId: string; files: readonly FileFace[] }) {
  const [open, setOpen] = useState<FileFace | null>(null);
  return (
    <Box component="ul" sx={{ m: 0, p: 0, listStyle: "none", display: "flex", flexWrap: "wrap", gap: 1 }}>
      {files.map((file) => (
        <li key={file.id}>
          {PICTURES.has(file.type) ? (
            <Button
              variant="outlined"
              color="inherit"
              aria-label={`Look at ${file.name}`}
              title={file.name}
              onClick={() => setOpen(file)}
              sx={{ p: 0.5, minWidth: 0, borderColor: "divider" }}
            >
              <Box
                component="img"
                src={smallPicture(file.id)}
                alt=""
                sx={{ display: "block", maxWidth: 120, maxHeight: 90 }}
              />
            </Button>
          ) : (
            <a href={api.fileAddress(formId, file.id)}>{file.name}</a>
          )}
        </li>
      ))}
      {open && (
        <Dialog open onClose={() => setOpen(null)} aria-labelledby="file-title" maxWidth="lg">
          <DialogTitle id="file-title" sx={{ overflowWrap: "anywhere" }}>
            {open.name}
          </DialogTitle>
          <DialogContent>
            <Box
              component="img"
              src={`${api.fileAddress(formId, open.id)}/picture`}
              alt={open.name}
              sx={{ display: "block", maxWidth: "100%", maxHeight: "65vh", mx: "auto" }}
            />
          </DialogContent>
          <DialogActions>
            <Button component="a" href={api.fileAddress(formId, open.id)} color="inherit">
              Download
            </Button>
            <Button autoFocus onClick={() => setOpen(null)}>
              Close
            </Button>
          </DialogActions>
        </Dialog>
      )}
    </Box>
  );
}
