'use client';

import { Component, type ReactNode } from 'react';

type Props = {
  readonly children: ReactNode;
  /** Shown in place of what broke; `again` draws it anew. */
  readonly instead: (error: Error, again: () => void) => ReactNode;
  /** Whatever may mend what broke: when it is another than before, it is drawn anew. */
  readonly mendedBy?: unknown;
};
type State = { readonly error: Error | null; readonly mendedBy: unknown };

/** Keeps what breaks while it is drawn from taking more than itself down. */
export class Guard extends Component<Props, State> {
  override state: State = { error: null, mendedBy: this.props.mendedBy };

  static getDerivedStateFromError(error: unknown): Partial<State> {
    return { error: error instanceof Error ? error : new Error(String(error)) };
  }

  static getDerivedStateFromProps({ mendedBy }: Props, state: State): State | null {
    return Object.is(mendedBy, state.mendedBy) ? null : { error: null, mendedBy };
  }

  override render(): ReactNode {
    const { error } = this.state;
    return error ? this.props.instead(error, () => this.setState({ error: null })) : this.props.children;
  }
}
