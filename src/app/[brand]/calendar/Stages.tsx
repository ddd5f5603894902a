'use client';

import { counted } from '@/core/words';
import { Fragment, memo, useMemo } from 'react';
import { byTimeOfDay } from '@/core/calendar/order';
import type { Slip } from '@/core/calendar/slip';
import { groupBy } from '@/core/group';
import { WORK_LABELS, WORKS } from '@/core/prep/step';
import { STAGES, STAGE_LABELS, type Stage } from '@/core/stages/stages';
import { CalendarSlip } from './CalendarSlip';
import { DropCell } from './DropCell';
import { stageId } from './places';
import { useMarks, useTimetable } from './timetable';

/** A column per stage with its count; columns fold. Of published, the last 14 days. */
export const Stages = memo(function Stages({
  slips,
  counts,
  folded,
  onFold,
}: {
  slips: readonly Slip[];
  /** Posts of each stage as the server counted them. */
  counts: Partial<Record<Stage, number>>;
  folded: ReadonlySet<string>;
  onFold: (stage: Stage) => void;
}) {
  const marksOf = useMarks();
  const { look } = useTimetable();
  const columns = useMemo(() => {
    const groups = groupBy(slips, (slip) => slip.stage);
    for (const [stage, group] of groups)
      group.sort((a, b) => {
        const [x, y] = [a.date ?? '9999', b.date ?? '9999'];
        const byDay = x === y ? byTimeOfDay(a, b) : x < y ? -1 : 1;
        return stage === 'published' ? -byDay : byDay;
      });
    return groups;
  }, [slips]);
  return (
    <div className="stages">
      {STAGES.map((stage) => {
        const here = columns.get(stage) ?? [];
        const count = Math.max(counts[stage] ?? 0, here.length);
        const isFolded = folded.has(stage);
        return (
          <DropCell
            key={stage}
            as="section"
            id={stageId(stage)}
            place={{ kind: 'stage', stage }}
            className={`stage-column${isFolded ? ' is-folded' : ''}`}
            aria-label={`${STAGE_LABELS[stage]}, ${counted(count, 'post')}`}
          >
            <header>
              <button type="button" onClick={() => onFold(stage)} aria-expanded={!isFolded}>
                <b>{STAGE_LABELS[stage]}</b>
                <span className="figures soft">{count}</span>
              </button>
            </header>
            {!isFolded && (
              <div className="stage-slips">
                {stage === 'published' && <p className="soft small-text">the last 14 days</p>}
                {(stage === 'production' && look.split ? byNextWork(here) : [{ name: null, slips: here }]).map(
                  (group) => (
                    <Fragment key={group.name}>
                      {group.name && (
                        <h3 className="stage-split">
                          {group.name} <span className="figures soft">{group.slips.length}</span>
                        </h3>
                      )}
                      {group.slips.map((slip) => (
                        <CalendarSlip key={slip.id} slip={slip} marks={marksOf(slip.id)} dated />
                      ))}
                    </Fragment>
                  ),
                )}
                {here.length === 0 && <p className="soft small-text">None.</p>}
                {count > here.length && (
                  <p className="soft small-text">and {count - here.length} more; filter to see them</p>
                )}
              </div>
            )}
          </DropCell>
        );
      })}
    </div>
  );
});

/** Posts by the sort of work that comes next, in the order of the work; those with nothing left to do last. */
function byNextWork(slips: readonly Slip[]): { name: string; slips: Slip[] }[] {
  const groups = groupBy(slips, ({ nextWork }) => nextWork);
  return [...WORKS, null].flatMap((work) => {
    const group = groups.get(work);
    return group ? [{ name: work ? `next: ${WORK_LABELS[work]}` : 'nothing left to do', slips: group }] : [];
  });
}
