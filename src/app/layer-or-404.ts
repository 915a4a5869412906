import { notFound } from 'next/navigation';
import { ValidationError } from 'yup';
import { DeskError } from '@/desk/desk-error';
import { lookAtLayer } from '@/desk/views/look-at-layers';
import type { LayerView } from '@/desk/views/views';

/** The defaults that an address names, or the page that says that there are none. */
export async function layerOr404(layer: 'site' | 'channel' | 'series', owner: string): Promise<LayerView> {
  try {
    return await lookAtLayer({ layer, owner });
  } catch (error) {
    if (error instanceof ValidationError || (error instanceof DeskError && error.kind === 'not found')) notFound();
    throw error;
  }
}
