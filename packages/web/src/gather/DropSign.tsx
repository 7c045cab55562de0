// Over the whole window while files are carried across it: what letting go does.

export const DropSign = ({ said }: { said: string }) => (
  <div className="pointer-events-none fixed inset-2 z-20 grid place-items-center border-2 border-dashed border-kelp bg-kelp-soft/90 font-title text-[22px] text-kelp-deep">
    {said}
  </div>
);
