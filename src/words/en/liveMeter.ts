import type { MeterMode } from '@/core/instrument/meterMode';
import type { LiveReading } from '@/core/instrument/offered';

const MEASURES: Readonly<Record<MeterMode['measures'], string>> = {
  volts: 'volts',
  ohms: 'ohms',
  diode: 'the diode range',
  amps: 'amps',
  hertz: 'frequency',
};

/** A dial in words: "DC volts", "ohms". */
export function dialWords({ measures, coupling }: MeterMode): string {
  return coupling ? `${coupling.toUpperCase()} ${MEASURES[measures]}` : MEASURES[measures];
}

/** What is said under a live value; empty where its own meaning says enough. */
export function liveWords(live: LiveReading): string {
  switch (live.is) {
    case 'off':
    case 'steady':
    case 'wanders':
      return '';
    case 'notForMeters':
      return 'Not a reading of this meter: type it.';
    case 'lost':
      return `No live value: ${live.why}.`;
    case 'wrongDial':
      return `The meter stands on ${dialWords(live.stands)}, this asks for ${dialWords(live.wanted)}.`;
    case 'notMoved':
      return `Still ${live.text} of the last place: lift a lead and set it again.`;
    case 'moving':
      return live.text ? `${live.text}, not at rest yet` : 'Waiting for the meter';
  }
}
