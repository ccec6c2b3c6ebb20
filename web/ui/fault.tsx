/** Why something could not be done, said as soon as it is known; nothing while there is no fault. */
export function Fault({ says }: { readonly says: string | null }) {
  return says ? (
    <p className="fault" role="alert">
      {says}
    </p>
  ) : null;
}
