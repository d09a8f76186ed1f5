'use client';

import { ShedSilent } from '@/ui/ShedSilent';
import './globals.css';

/** What stands for the whole application where not even its frame could be made: who is signed in is asked of the database. */
export default function AllFailed() {
  return (
    <html lang="en" data-theme="light">
      <body>
        <title>The shed does not answer</title>
        <ShedSilent again={() => window.location.reload()} />
      </body>
    </html>
  );
}
