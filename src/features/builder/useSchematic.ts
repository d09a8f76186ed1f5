'use client';

import { useEffect, useRef, useState } from 'react';
import { InputError } from '@/core/circuit/inputError';
import { CircuitModel } from '@/core/circuit/model';
import type { Circuit } from '@/core/circuit/schema';
import type { Schematic } from '@/core/schematic/schematic';
import { schematicGraph } from '@/core/schematic/schematicGraph';
import { SchematicClient } from '@/workers/schematicClient';

export interface Drawn {
  model: CircuitModel;
  schematic: Schematic;
}

/** The schematic of a circuit, laid out in a worker; the last good one stays while a new one is being made. */
export function useSchematic(circuit: Circuit): { drawn: Drawn | null; trouble: string | null } {
  const client = useRef<SchematicClient | null>(null);
  const [drawn, setDrawn] = useState<Drawn | null>(null);
  const [trouble, setTrouble] = useState<string | null>(null);
  useEffect(
    () => () => {
      client.current?.close();
      client.current = null;
    },
    [],
  );
  useEffect(() => {
    let current = true;
    if (circuit.parts.length === 0) {
      setDrawn(null);
      setTrouble(null);
      return;
    }
    const model = modelOf(circuit);
    if (typeof model === 'string') {
      setTrouble(model);
      return;
    }
    void (client.current ??= new SchematicClient()).layout(schematicGraph(model)).then((answer) => {
      if (!current) return;
      if (answer.ok) {
        setDrawn({ model, schematic: answer.value });
        setTrouble(null);
      } else setTrouble(answer.message);
    });
    return () => {
      current = false;
    };
  }, [circuit]);
  return { drawn, trouble };
}

/** The circuit opened, with a stand-in supply where it has none yet; what is wrong with it otherwise. */
function modelOf(circuit: Circuit): CircuitModel | string {
  try {
    return new CircuitModel(circuit);
  } catch (error) {
    if (error instanceof InputError) return error.message;
    throw error;
  }
}
