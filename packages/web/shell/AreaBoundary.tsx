import { Button } from 'antd';
import { Component, type ReactNode } from 'react';
import { shellWords as wording } from './words';

interface State {
  readonly failed: string | null;
}

/** Around an area: when it fails to draw, the frame stays, what was not saved is kept, and another area or a reload goes on. */
export class AreaBoundary extends Component<{ readonly children: ReactNode }, State> {
  override state: State = { failed: null };

  static getDerivedStateFromError(error: unknown): State {
    return { failed: error instanceof Error ? error.message : String(error) };
  }

  override render(): ReactNode {
    if (this.state.failed === null) return this.props.children;
    return (
      <div className="note stop" role="alert" style={{ margin: 16 }}>
        <p>{wording.thisAreaCouldNotBeShown}</p>
        <p className="faded mono">{this.state.failed}</p>
        <Button onClick={() => window.location.reload()}>{wording.reload}</Button>
      </div>
    );
  }
}
