import { useSurvey } from '../../api/survey.js';
import { useBenchState } from '../../bench/model/context.js';
import { useProofState } from '../model.js';
import { blurOnScreen } from '../use-zoom.js';

/** How far the compared picture is blurred to what eyes see of it at its use, CSS px; 0 for as it is. */
export function useSeenBlur(): number {
  const asSeen = useProofState((s) => s.asSeen);
  const { pictureId, picture, zoom } = useBenchState((s) => ({
    pictureId: s.pictureId,
    picture: s.records?.picture ?? null,
    zoom: s.viewport?.zoom ?? null,
  }));
  const { data: survey } = useSurvey(pictureId);
  if (!asSeen || !picture || !survey || zoom === null) return 0;
  return blurOnScreen(survey.settings, picture.ppi, zoom);
}

/** Light is blurred as light: an eye adds up what reaches it, not the codes it is kept in. */
export function SeenFilter({ id, blur }: { readonly id: string; readonly blur: number }) {
  return (
    <svg width={0} height={0} aria-hidden>
      <filter id={id} x="0" y="0" width="1" height="1" colorInterpolationFilters="linearRGB">
        <feGaussianBlur stdDeviation={blur} />
      </filter>
    </svg>
  );
}
