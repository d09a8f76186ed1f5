import { NextResponse } from 'next/server';
import { Refused } from '@/features/gate/failure';
import { jsonOf, route } from '@/features/gate/route';
import { witnessSchema } from '@/features/people/schema';
import { standBy } from '@/features/people/server';

const LARGEST = 4000;

/** A second person proves with their PIN that they stand by; the answer is good for the next entry. */
export const POST = route('work', async (request, _params, who) => {
  const asked = witnessSchema.safeParse(await jsonOf(request, LARGEST));
  if (!asked.success) throw new Refused(400, 'bad-input', 'Give the second person’s name and PIN.');
  return NextResponse.json(await standBy(who, asked.data), { headers: { 'cache-control': 'no-store' } });
});
