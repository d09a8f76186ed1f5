'use client';

import { useCallback, useEffect, useMemo, useReducer, useState } from 'react';
import type { Drawing } from '@/core/draw/layChain';
import { parseCircuit } from '@/core/circuit/parse';
import { circuitSchema, type Circuit } from '@/core/circuit/schema';
import { move, startSteps } from '@/ui/undoSteps';
import { nodeStill } from './nodeStill';

export interface DrawingState {
  drawing: Drawing;
  put: (drawing: Drawing) => void;
  /** Changes the circuit, staying where one stands. */
  change: (circuit: Circuit) => void;
  undo: (() => void) | null;
  redo: (() => void) | null;
  /** There are changes that are not in the library. */
  changed: boolean;
  /** The changes were found on this device, from an earlier visit. */
  found: boolean;
  /** Begins again from what the library has. */
  forget: () => void;
  /** What is on the desk is in the library now. */
  kept: () => void;
}

/** A drawing with undo and redo; changes are held on this device until they are kept. */
export function useDrawing(circuit: Circuit, key: string): DrawingState {
  const begin: Drawing = useMemo(() => ({ circuit, at: null }), [circuit]);
  const [history, act] = useReducer(move<Drawing>, begin, startSteps<Drawing>);
  const [found, setFound] = useState(false);
  const [base, setBase] = useState(() => JSON.stringify(circuit));
  const drawing = history.steps[history.at]!;
  const text = JSON.stringify(drawing.circuit);
  const changed = text !== base;
  useEffect(() => {
    const held = read(key);
    if (!held || JSON.stringify(held.circuit) === JSON.stringify(circuit)) return;
    act({ is: 'start', to: held });
    setFound(true);
  }, [key, circuit]);
  useEffect(() => {
    // A sheet that was only opened leaves nothing behind; one that was emptied is a change like any other.
    if (changed) write(key, drawing);
  }, [key, changed, drawing]);
  const put = useCallback((next: Drawing) => act({ is: 'put', to: next }), []);
  return {
    drawing,
    put,
    change: (next) => put({ circuit: next, at: nodeStill(next, drawing.at) }),
    undo: history.at > 0 ? () => act({ is: 'undo' }) : null,
    redo: history.at < history.steps.length - 1 ? () => act({ is: 'redo' }) : null,
    changed,
    found,
    forget: () => {
      localStorage.removeItem(key);
      setFound(false);
      act({ is: 'start', to: begin });
    },
    kept: () => {
      localStorage.removeItem(key);
      setFound(false);
      setBase(text);
    },
  };
}

function read(key: string): Drawing | null {
  try {
    const held = JSON.parse(localStorage.getItem(key) ?? 'null') as Drawing | null;
    if (!held) return null;
    const empty = held.circuit.parts.length === 0;
    const circuit = empty
      ? circuitSchema.omit({ parts: true }).parse(held.circuit)
      : parseCircuit(held.circuit);
    return { circuit: empty ? { ...circuit, parts: [] } : (circuit as Circuit), at: held.at };
  } catch {
    // Written by an older program, or cut short: the library's drawing stands.
    return null;
  }
}

function write(key: string, drawing: Drawing): void {
  try {
    localStorage.setItem(key, JSON.stringify(drawing));
  } catch {
    // A full or forbidden store takes nothing: the drawing lives on in this tab, and undo with it.
  }
}
