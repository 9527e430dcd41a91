// Where drawing the form fails, visitors read what to do; nothing that they entered is lost by it.
import { Component, type ReactNode } from "react";
import { say } from "../text/visitor";

export class Safe extends Component<{ children: ReactNode }, { failed: boolean }> {
  override state = { failed: false };

  static getDerivedStateFromError = () => ({ failed: true });

  override render(): ReactNode {
    if (!this.state.failed) return this.props.children;
    return (
      <div className="cx-summary" role="alert">
        <p>{say("notDrawn")}</p>
        <button type="button" className="cx-submit" onClick={() => location.reload()}>
          {say("reload")}
        </button>
      </div>
    );
  }
}
