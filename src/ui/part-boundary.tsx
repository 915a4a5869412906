'use client';

import { Component, type ReactNode } from 'react';
import { Button } from './button';

/** Keeps the page where a part of it could not be loaded, as without the line, and says so in its place. */
export class PartBoundary extends Component<{ children: ReactNode }, { failed: boolean }> {
  override state = { failed: false };

  static getDerivedStateFromError() {
    return { failed: true };
  }

  override render() {
    if (!this.state.failed) return this.props.children;
    return (
      <div role="alert" className="flex flex-wrap items-center gap-3 px-4 py-3.5">
        <p>
          <b className="text-snag">▲ This part could not be loaded.</b> Nothing is lost. Load the page again once Kettle
          Drop answers.
        </p>
        <Button onClick={() => window.location.reload()}>Load the page again</Button>
      </div>
    );
  }
}
