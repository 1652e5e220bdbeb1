import type { Repair } from '@tersum/document';
import { isCopy, siteMiddle } from '@tersum/document';
import { Bookmark } from 'lucide-react';
import { MenuTrigger, Popover } from 'react-aria-components';
import { dropKeptDonor, keepDonor, useKeptDonors } from '../../api/donors.js';
import { Item, List } from '../../look/MenuSheet.js';
import { Push } from '../../look/parts.js';
import { useBench, useBenchState } from '../model/context.js';

/** Puts the open repair's donor among the donors kept at hand for the job. */
export function KeepDonor({ repair }: { readonly repair: Repair }) {
  const { bench } = useBench();
  const { jobId, pictureId, name } = useBenchState((s) => ({
    jobId: s.records?.picture.jobId,
    pictureId: s.pictureId,
    name: s.records?.picture.name ?? '',
  }));
  const { method } = repair;
  if (!jobId || !isCopy(method)) return null;
  const { dx, dy, picture, ...laid } = method.donor;
  const keep = (): void => {
    const [x, y] = siteMiddle(repair);
    const at: [number, number] = [Math.round(x + dx), Math.round(y + dy)];
    void keepDonor(jobId, { pictureId: picture ?? pictureId, name, at, laid }).then(
      () => bench.set({ notice: 'Donor kept. It is at hand for every picture of this job.' }),
      (error: Error) => bench.set({ notice: error.message }),
    );
  };
  return (
    <Push onPress={keep}>
      <Bookmark size={14} aria-hidden /> Keep donor
    </Push>
  );
}

/** The donors kept at hand: choosing one copies the next strokes from there. */
export function KeptDonors() {
  const { bench } = useBench();
  const { jobId, pictureId } = useBenchState((s) => ({
    jobId: s.records?.picture.jobId,
    pictureId: s.pictureId,
  }));
  const { data: kept } = useKeptDonors(jobId);
  if (!kept?.length || !jobId) return null;
  const choose = (key: string): void => {
    const [act, id] = key.split(' ') as [string, string];
    if (act === 'drop') return void dropKeptDonor(jobId, id);
    const donor = kept.find((d) => d.id === id);
    if (!donor) return;
    const picture = donor.pictureId === pictureId ? null : donor.pictureId;
    bench.setTool({ donor: { kind: 'place', at: donor.at, laid: { ...donor.laid, picture } } });
  };
  return (
    <MenuTrigger>
      <Push>
        <Bookmark size={14} aria-hidden /> Kept donors {kept.length}
      </Push>
      <Popover placement="top start">
        <List onAction={(key) => choose(String(key))}>
          {kept.map((d) => (
            <Item key={d.id} id={`use ${d.id}`}>
              {d.at[0]}, {d.at[1]} px
              {d.pictureId === pictureId ? '' : ` in ${d.name}`}
            </Item>
          ))}
          {kept.map((d) => (
            <Item key={`drop ${d.id}`} id={`drop ${d.id}`}>
              Forget {d.at[0]}, {d.at[1]}
            </Item>
          ))}
        </List>
      </Popover>
    </MenuTrigger>
  );
}
