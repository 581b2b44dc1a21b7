import { titled } from '@/app/titled';
import bwip from 'bwip-js/node';
import { needPerson } from '@/app/need-person';
import { lastBackup, serverDb } from '@/server/db/connection';
import { listDepots } from '@/server/fleet/depots';
import { listFamilies, listUnits } from '@/server/fleet/fleet-list';
import { readInstallation } from '@/server/installation/installation';
import { TopBar } from '@/ui/kit/top-bar';
import { Workshop } from '@/ui/workshop/workshop';

export const dynamic = 'force-dynamic';
export const generateMetadata = titled('Workshop');

const QR = { bcid: 'qrcode', scale: 3 };

export default async function WorkshopPage() {
  await needPerson('/workshop');
  const { db } = serverDb();
  const [installation, backup, depots, families, units] = await Promise.all([
    readInstallation(db),
    lastBackup(db),
    listDepots(db),
    listFamilies(db),
    listUnits(db),
  ]);
  const address = process.env.MUDFLAT_YARD;
  return (
    <div className="flex min-h-dvh flex-col">
      <TopBar here="/workshop">
        <h1 className="text-lg font-bold text-ink">Workshop</h1>
      </TopBar>
      <Workshop
        workshop={{
          name: installation?.name ?? '',
          hasLogo: installation?.hasLogo ?? false,
          locale: installation?.locale ?? null,
          // The demo is nobody's to lose.
          backup: installation?.kind === 'own' ? { last: backup } : null,
          yard: address ? { address, code: bwip.toSVG({ ...QR, text: address }) } : null,
          depots,
          families,
          units,
        }}
      />
    </div>
  );
}
