import { Component, type ReactNode } from 'react';

/** What stands on the screen when the interface itself fails: the reason, and that nothing is lost. */
export class Broken extends Component<{ children: ReactNode }, { error?: unknown }> {
  override state: { error?: unknown } = {};

  static getDerivedStateFromError(error: unknown) {
    return { error };
  }

  override render() {
    if (!('error' in this.state)) return this.props.children;
    const { error } = this.state;
    return (
      <main className="p-8">
        <h1 className="text-lg font-semibold">The screen broke</h1>
        <p className="py-2">
          Your job is not lost: every change was kept before it was shown. Load the page again to go on.
        </p>
        <p className="rule text-graphite">{error instanceof Error ? error.message : String(error)}</p>
        <button type="button" className="action mt-3" onClick={() => location.reload()}>
          Load again
        </button>
      </main>
    );
  }
}
