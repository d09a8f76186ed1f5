'use client';

import type { Test } from '@/core/circuit/schema';
import { lazyPart } from '@/ui/lazyPart';
import { useDesk } from '../desk/desk';
import type { MeterInUse } from './useMeterInUse';

const MeterDialog = lazyPart(() => import('./MeterDialog').then((one) => one.MeterDialog));
const LiveMeter = lazyPart(() => import('../meter/LiveMeter').then((one) => one.LiveMeter));

/** The line to a meter on a wire while there is one, and the dialog that says which meter it is. */
export function MeterTools({
  meter,
  test,
  shown,
  onShown,
}: {
  meter: MeterInUse;
  test: Test | undefined;
  shown: boolean;
  onShown: (shown: boolean) => void;
}) {
  const { speaker, job } = useDesk();
  const { profile, setProfile, source, setSource, setLive } = meter;
  return (
    <>
      {source.from === 'typed' ? null : (
        <LiveMeter
          source={source}
          model={speaker.model}
          machine={job.machineCode}
          functionName={job.functionName}
          test={test}
          onReading={setLive}
        />
      )}
      {shown ? (
        <MeterDialog
          open
          meter={profile}
          source={source}
          onOpenChange={onShown}
          onKeep={setProfile}
          onSource={setSource}
        />
      ) : null}
    </>
  );
}
