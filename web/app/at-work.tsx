import { setMakerAtWork, useMakerAtWork } from '../api/maker.js';
import { useShop } from '../plan/use-shop.js';
import { Picker } from '../ui/picker.js';

const NOBODY = 'nobody';

/** Who works on this device: chosen once, written down with what is cut and booked. Nothing is asked in a shop that has named nobody. */
export function AtWork() {
  const makers = useShop()?.makers.filter((maker) => !maker.retired) ?? [];
  const atWork = useMakerAtWork();
  if (makers.length === 0) return null;
  return (
    <Picker
      label="At work"
      value={makers.some(({ id }) => id === atWork) ? atWork! : ''}
      placeholder="Who is at work?"
      options={[
        { id: NOBODY, text: 'nobody: write no name down' },
        ...makers.map(({ id, name }) => ({ id, text: name })),
      ]}
      onChange={(id) => setMakerAtWork(id === NOBODY ? null : id)}
    />
  );
}
