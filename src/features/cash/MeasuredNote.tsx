import type { CashView } from '@/core/ground';
import stage from '@/components/Stage.module.css';

/** How fast money came and went, as the ledger tells. */
export function MeasuredNote({ view }: { readonly view: CashView }) {
  const { measured } = view;
  const lines = [
    ['Customers pay', measured.in],
    ['Suppliers are paid', measured.out],
  ] as const;
  return (
    <>
      <h2>Measured in the ledger</h2>
      <p className="faded" style={{ fontSize: 12.5 }}>
        Payments matched to invoices: by reference, else the oldest first.
      </p>
      {lines.map(([name, shares]) => (
        <section key={name}>
          <div className="label">{name}</div>
          {shares.length === 0 ? (
            <p className="faded">The ledger does not tell.</p>
          ) : (
            shares.map((s) => (
              <div key={s.days} className={stage.pair}>
                <span>after {s.days} days</span>
                <span>{s.percent}%</span>
              </div>
            ))
          )}
        </section>
      ))}
      <p className="faded">Choose a line to see and change its terms.</p>
    </>
  );
}
