/** The pages outside studies, in the order of the top bar. */
export const WORKSHOP = {
  desk: { label: 'Desk', href: '/' },
  studies: { label: 'Studies', href: '/studies' },
  machines: { label: 'Machines', href: '/machines' },
  artefacts: { label: 'Artefacts', href: '/artefacts' },
  materials: { label: 'Materials', href: '/materials' },
  instruments: { label: 'Instruments', href: '/instruments' },
  profiles: { label: 'Profiles', href: '/profiles' },
} as const;

export type WorkshopPage = keyof typeof WORKSHOP;
