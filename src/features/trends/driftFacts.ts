import type { GaugeUnit } from '@/core/units/quantities';
import type { TrendRow } from '@/db/trends';
import { measureFigure, trendWords, type TrendWords } from '@/words/en/trends';
import { stripOf, type Strip } from './strip';

/** As little of a place as its row shows. */
export interface DriftFacts {
  place: string;
  machine: string;
  function: string;
  title: string;
  figure: string;
  says: string;
  tone: TrendWords['tone'];
  readings: number;
  strip: Strip | null;
}

/** @param today calendar day, 2026-12-03 */
export function driftFacts(
  { function_id, place_key, machine_code, function_name, body }: TrendRow,
  today: string,
  gaugeUnit: GaugeUnit,
): DriftFacts {
  const { moves, when, tone } = trendWords(body, today);
  const last = body.dots.at(-1);
  return {
    place: `${function_id}/${place_key}`,
    machine: machine_code,
    function: function_name,
    title: body.title,
    figure: last ? measureFigure(body.kind, last.value, gaugeUnit, last.over) : '',
    says: `${moves} ${when}`.trim(),
    tone,
    readings: body.dots.length,
    strip: stripOf(body),
  };
}
