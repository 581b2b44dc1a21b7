import { BookOpen, CircuitBoard, Factory, Gauge, Ruler, Users, Warehouse } from 'lucide-react';
import { Link } from './link';
import type { ReactNode } from 'react';
import { CalculationsButton } from '../calculations/calculations-button';
import { Logo } from './logo';
import { Selects } from './selects';

/**
 * The last one is seldom wanted: a screen of a job and a narrow one, which need the width, leave it out;
 * People leads to it.
 */
const ROOMS = [
  ['/', 'Yard', Warehouse],
  ['/shelf', 'Shelf', Ruler],
  ['/catalogue', 'Catalogue', BookOpen],
  ['/circuits', 'Circuits', CircuitBoard],
  ['/instruments', 'Instruments', Gauge],
  ['/people', 'People', Users],
  ['/workshop', 'Workshop', Factory],
] as const;

/** A word under its icon where the unit needs the width, beside it where there is room. */
const STACKED = 'flex-col gap-0 px-1 min-[52rem]:px-1.5 text-[11px] leading-tight';
const BESIDE = 'flex-col gap-0 px-1 text-[11px] leading-tight xl:flex-row xl:gap-1.5 xl:px-2 xl:text-sm';

export interface TopBarProps {
  readonly children?: ReactNode;
  /** Path of the room that this screen is. */
  readonly here?: string;
  /** The job that a sum can be put into. */
  readonly jobId?: string;
}

/** The bar over every screen: where I am, which unit, the other rooms, who I am, which light. */
export function TopBar({ children, here, jobId }: TopBarProps) {
  return (
    <header className="flex min-h-13 shrink-0 flex-wrap items-center gap-x-3 gap-y-1 border-b border-line bg-panel px-4 py-1">
      <Link href="/" className="flex min-h-11 items-center gap-2 text-xl font-bold">
        <Logo />
        <span className="flex flex-col items-start leading-none">
          <span className="sr-only sm:not-sr-only">Mudflat</span>
          <span className="demo-mark">demo</span>
        </span>
      </Link>
      <div className="order-last flex min-w-0 flex-1 basis-full flex-wrap items-baseline gap-x-4 text-soft lg:order-none lg:basis-0">
        {children}
      </div>
      <nav
        aria-label="Rooms"
        className="no-print ml-auto flex items-center max-sm:order-2 max-sm:w-full max-sm:justify-between"
      >
        {(jobId ? ROOMS.slice(0, -1) : ROOMS).map(([path, name, Icon]) => (
          <Link
            key={path}
            href={path}
            title={name}
            aria-current={here === path ? 'page' : undefined}
            className={`${path === '/workshop' ? 'max-[52rem]:hidden' : ''} inline-flex min-h-11 min-w-11 items-center justify-center rounded-lg ${jobId ? STACKED : BESIDE} ${here === path ? 'bg-card font-bold text-ink' : 'text-soft hover:text-ink'}`}
          >
            <Icon size={18} aria-hidden="true" />
            <span>{name}</span>
          </Link>
        ))}
        <CalculationsButton jobId={jobId ?? null} look={jobId ? STACKED : BESIDE} />
      </nav>
      <Selects />
    </header>
  );
}
