'use client';

import dynamic from 'next/dynamic';
import type { OpenDrawing } from './schema';

const DrawScreen = dynamic(() => import('./DrawScreen').then((one) => one.DrawScreen));

/** The drawing desk, with its schemas and formats, travels to the browser only when something is drawn. */
export function DrawDesk({ desk }: { desk: OpenDrawing }) {
  return <DrawScreen desk={desk} />;
}
