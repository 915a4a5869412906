/** Lets every element with `data-seek` take the player there. */
export const SEEK = `addEventListener('click',e=>{const b=e.target.closest('[data-seek]');if(!b)return;const v=document.querySelector('video');v.currentTime=Number(b.dataset.seek);v.play().catch(()=>{})})`;

/** Whole seconds as viewers read them. */
export function stamp(seconds: number): string {
  const [h, m, s] = [Math.floor(seconds / 3600), Math.floor(seconds / 60) % 60, seconds % 60];
  const two = (value: number) => String(value).padStart(2, '0');
  return h > 0 ? `${h}:${two(m)}:${two(s)}` : `${m}:${two(s)}`;
}
