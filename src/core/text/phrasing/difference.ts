import type { DifferenceProposal } from '../../answers/plan';

/** `3 h 20 min`, `45 min`. */
function lasting(seconds: number): string {
  const minutes = Math.max(1, Math.round(seconds / 60));
  const hours = Math.floor(minutes / 60);
  if (hours === 0) return `${minutes} min`;
  return minutes % 60 === 0 ? `${hours} h` : `${hours} h ${minutes % 60} min`;
}

/** Why a smallest difference is proposed, in one sentence. */
export function reasonInWords(proposal: DifferenceProposal): string {
  switch (proposal.from) {
    case 'repeatability':
      return (
        `${proposal.instrument} repeats to ${proposal.value} mm: one reading each can show ` +
        'nothing smaller.'
      );
    case 'resolution':
      return (
        `${proposal.instrument} shows steps of ${proposal.step_mm} mm: measure some parts twice ` +
        'to learn how well it repeats.'
      );
    case 'tolerance':
      return (
        `A fifth of your tightest tolerance: ${proposal.dimension} may vary by ` +
        `${Number(proposal.width_mm.toPrecision(6))} mm.`
      );
    case 'print time':
      return (
        `Of a print of ${lasting(proposal.print_s)} this is ` +
        `${lasting((proposal.print_s * proposal.value) / 100)}.`
      );
  }
}
