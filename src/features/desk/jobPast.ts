import 'server-only';
import { LRUCache } from 'lru-cache';
import type { Circuit } from '@/core/circuit/schema';
import type { Experience } from '@/core/diagnosis/experience';
import { testKey } from '@/core/diagnosis/observations';
import type { Weather } from '@/core/job/weather';
import { windingType } from '@/core/job/provedMeasures';
import {
  ageOf,
  exposureOf,
  oddsFor,
  placeOfCircuit,
  seasonOfDay,
  type Exposure,
} from '@/core/shed/learntOdds';
import { learntWindings } from '@/core/shed/learntWindings';
import type { JobPast } from '@/core/sheets/onCircuit/jobSheet';
import { readBaselines } from '@/db/entries';
import { readWindings } from '@/db/past';
import { ofProcess } from '@/db/shed';
import { oddsBefore } from '../record/odds';
import { typeKey } from '../record/typeKey';
import { drawnOf } from './jobModel';

export interface PastOf {
  id: string;
  functionId: string;
  circuit: Circuit;
  equipment: string | null;
  /** Of its machine when it was opened, by the hour meter; null where nobody had looked. */
  machineHours: number | null;
  openedAt: string;
  /** The weather it failed in; null where nobody has said. */
  weather: Weather | null;
}

/**
 * What the shed's past says of a job's circuit: what earlier jobs left proved of its function and of windings of its types, and how often
 * things broke here, as it was known when the job was opened.
 */
export async function pastOfJob(job: PastOf): Promise<{ past: JobPast; experience: Experience }> {
  const { model } = drawnOf(job.circuit);
  const types = new Set(model.compiled.parts.flatMap((part) => windingType(part) ?? []));
  const [baselines, windings, { learnt, own }] = await Promise.all([
    readBaselines(job.functionId, job.id),
    readWindings([...types], job.functionId, job.id),
    oddsBefore(new Date(job.openedAt)),
  ]);
  const context = {
    type: typeKey(job.circuit),
    equipment: job.equipment,
    season: seasonOfDay(job.openedAt),
    weather: job.weather,
    place: placeOfCircuit(model),
    age: ageOf(job.machineHours),
  };
  return {
    past: {
      baselines: baselines.map(({ reading, jobNumber, at }) => ({
        key: testKey(reading),
        value: reading.value,
        jobNumber,
        at: at.toISOString(),
      })),
      windings,
    },
    experience: {
      odds: learnt ? oddsFor(exposed(job.circuit), learnt, context, own) : {},
      windings: learntWindings(model, windings),
    },
  };
}

const MOST_EXPOSURES = 60;
const exposures = ofProcess('exposures', () => new LRUCache<string, Exposure>({ max: MOST_EXPOSURES }));

/** Faults that a circuit can have; listed once for the same circuit. */
function exposed(circuit: Circuit): Exposure {
  const key = JSON.stringify(circuit);
  let known = exposures.get(key);
  if (!known) exposures.set(key, (known = exposureOf(drawnOf(circuit).model)));
  return known;
}
