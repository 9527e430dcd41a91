// What is shown where the workbench itself breaks: never a blank page.
import Alert from "@mui/material/Alert";
import Button from "@mui/material/Button";
import { Component, type PropsWithChildren } from "react";

export class Failed extends Component<PropsWithChildren, { broken: boolean }> {
  override state = { broken: false };

  static getDerivedStateFromError() {
    return { broken: true };
  }

  override render() {
    if (!this.state.broken) return this.props.children;
    return (
      <Alert
        severity="error"
        sx={{ m: 4, maxWidth: 640 }}
        action={<Button onClick={() => location.reload()}>Reload</Button>}
      >
        This screen broke. Everything up to the last save is kept; reload the page to go on.
      </Alert>
    );
  }
}
