// Preloaded into a process that is measured: says at its end what it took.
import { writeFileSync } from 'node:fs';

process.on('exit', () => {
  const { userCPUTime, systemCPUTime, maxRSS } = process.resourceUsage();
  const usage = { cpu_s: (userCPUTime + systemCPUTime) / 1e6, peak_mb: maxRSS / 1024 };
  writeFileSync(process.env.USAGE_TO, JSON.stringify(usage));
});
