import type { CompiledPart } from '@/core/circuit/compile';
import type { PathLayout } from '@/core/path/layoutPath';
import type { Standing } from '@/core/path/standing';
import type { GaugeMark } from '@/core/units/quantities';
import type { Pin, Span, Tag } from './PathMarks';

/** What the path figure draws, and what pressing its pieces does. */
export interface PathFigureProps {
  layout: PathLayout;
  parts: readonly CompiledPart[];
  /** What the levels of a fluid path are marked in. */
  gaugeUnit: GaugeMark;
  /** By node: it stands on an alternating supply. */
  alternating: Uint8Array;
  standings: readonly Standing[];
  pins: readonly Pin[];
  spans: readonly Span[];
  /** Nodes under the red and the black lead. */
  leads: { plus: number; minus: number } | null;
  /** A node asked for without leads: where a gauge goes. */
  gauge?: number | null;
  tag: Tag;
  typed: string;
  statement: readonly string[];
  noReach: ReadonlySet<number>;
  /** Connectors apart, fuses pulled in the asked set-up. */
  apart: ReadonlySet<number>;
  /** Contacts the asked set-up closes. */
  closed: ReadonlySet<number>;
  dead: boolean;
  /** Nothing is doubted here: a drawing, not a job. */
  plain?: boolean;
  /** Words for a node that is not on the lane shown. */
  nameOf: (node: number) => string;
  /** Counts are from before the last reading; the new ones are being worked out. */
  stale: boolean;
  onPoint: (node: number) => void;
  onLane: (id: string) => void;
  onRun: (part: number) => void;
}
