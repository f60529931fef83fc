import { beforeAll, describe, expect, it } from 'vitest';
import { demoFiles } from '../../../../tests/support/demo-files';
import { memorySource, readPackage } from '../../model/package';
import { indexStudy, type StudyIndex } from '../../model/study';
import { panelEvidence } from '.';

let index: StudyIndex;
beforeAll(async () => {
  const { content } = await readPackage(memorySource(demoFiles()));
  if (!content) throw new Error('the demo has faults');
  index = indexStudy(content.study);
});

describe('the evidence of a panel', () => {
  it('is the ballots that showed the contender, each with what was chosen', () => {
    const found = panelEvidence(index, 'D-stock', 'smooth-front');
    // 24 judges, eight questions and one more, two of six contenders each, every ballot of whose specimen is there.
    const own = index.study.tables.ballots.filter(
      ({ panel_id, item_1, item_2 }) =>
        panel_id === 'smooth-front' && [item_1, item_2].includes('K7-063'),
    );
    expect(found?.title).toBe('On which one is the wall smoother?');
    expect(found?.tables[0]?.rows).toHaveLength(own.length);
    expect(own.length).toBeGreaterThan(60);
    const [first] = found?.tables[0]?.rows ?? [];
    const [row] = own.sort((a, b) => `${a.judge} ${a.at}`.localeCompare(`${b.judge} ${b.at}`));
    const side =
      row?.choice === '1' ? first?.[1] : row?.choice === '2' ? first?.[2] : 'no difference';
    expect(first?.[3]).toBe(side);
    expect(String(first?.[row?.item_1 === 'K7-063' ? 1 : 2])).toContain('K7-063');
  });

  it('of a triangle has three places, and of no panel there is none', () => {
    const found = panelEvidence(index, 'B-tuned', 'odd-block');
    expect(found?.tables[0]?.columns.map(({ label }) => label)).toEqual([
      'judge',
      'left',
      'middle',
      'right',
      'chosen',
      'at',
    ]);
    expect(found?.tables[0]?.rows).toHaveLength(48);
    expect(found?.formula).toContain('1/3');
    expect(panelEvidence(index, 'A-stock', 'odd-block')?.tables[0]?.rows).toEqual([]);
    expect(panelEvidence(index, 'A-stock', 'nothing')).toBeNull();
  });
});
