import { Hold } from '@/ui/sheet';
import { TurnedAway } from '@/ui/TurnedAway';

/** A page that somebody of this role does not see. */
export function MayNot({ message }: { message: string }) {
  return (
    <TurnedAway title="Not yours to do" message={message}>
      <Hold>Nobody signs for somebody else.</Hold>
    </TurnedAway>
  );
}
