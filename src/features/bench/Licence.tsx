import { Hold } from '@/ui/sheet';
import { sheetLicenceWords } from '@/words/en/holds';

/** Who may do what a sheet about refrigerant is about; `open`: whether that is who is signed in. */
export function Licence({ open }: { open: boolean }) {
  return (
    <div className="px-6 pt-2 max-tablet:px-3" data-testid="licence">
      <Hold>{sheetLicenceWords(open)}</Hold>
    </div>
  );
}
