import type { Metadata } from 'next';
import { layerOr404 } from '@/app/layer-or-404';
import { LayerForm } from '@/ui/layer/layer-form';

export const dynamic = 'force-dynamic';

interface PageProps {
  params: Promise<{ id: string }>;
}

export async function generateMetadata({ params }: PageProps): Promise<Metadata> {
  return { title: `Defaults of ${(await layerOr404('channel', (await params).id)).name}` };
}

export default async function Page({ params }: PageProps) {
  return (
    <LayerForm
      first={await layerOr404('channel', (await params).id)}
      says="What every video on this channel has, unless its series or the video says otherwise."
    />
  );
}
