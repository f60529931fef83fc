import { emptyBin, forgetAnswers, forgetDeletions } from '../data';
import type { App } from '../server/app';
import { backUpIfDue, backupPlan, readBackIfDue } from '../server/backup/keeper';
import { closeDuePanels } from '../server/panels/closing';

const LOOK_EVERY_MS = 60_000;

/**
 * Looks at once and then again and again what time has made due: backups, the bin, answers that were kept, panels
 * that their date ends, work that nobody has taken up.
 *
 * @throws Error in words where the environment makes no sense
 */
export function keepHouse(app: App, takeUp: () => Promise<void>): void {
  const plan = backupPlan();
  const url = process.env.DATABASE_URL ?? '';
  const due = [
    () => emptyBin(app.db),
    () => forgetDeletions(app.db),
    () => forgetAnswers(app.db),
    () => closeDuePanels(app.db),
    takeUp,
    () => (plan ? backUpIfDue(app, plan, url) : Promise.resolve()),
    () => (plan ? readBackIfDue(app, url) : Promise.resolve()),
  ];
  const turn = async () => {
    for (const work of due) {
      await work().catch((error: unknown) => app.log.error(error, 'what time has made due'));
    }
    setTimeout(() => void turn(), LOOK_EVERY_MS).unref();
  };
  void turn();
}
