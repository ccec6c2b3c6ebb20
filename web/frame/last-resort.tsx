import { Component, type ReactNode } from 'react';
import { Failed } from './screen-fault.tsx';

interface Props {
  readonly children: ReactNode;
}

/** Where even the frame round the screens fails: says so, instead of leaving an empty window. */
export class LastResort extends Component<Props, { readonly error: unknown }> {
  override state: { readonly error: unknown } = { error: null };

  static getDerivedStateFromError(error: unknown) {
    return { error };
  }

  override render() {
    return this.state.error === null ? this.props.children : <Failed error={this.state.error} />;
  }
}
