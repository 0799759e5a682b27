/** How tablets find the house in its network, and whether their browsers trust it. */
import { useQuery } from "@tanstack/react-query";
import { api, got } from "@/api/client";
import { sentence } from "@/api/queries";
import classes from "./Network.module.css";

export function Network() {
  const house = useQuery({ queryKey: ["house"], queryFn: () => got(api.GET("/api/house")) });
  const { data } = house;
  return (
    <section id="network" aria-label="Network" className={classes.network}>
      <h2>Network</h2>
      {house.error && <p role="alert">{sentence(house.error)}</p>}
      {data && (
        <div className={classes.two}>
          {data.found && (
            <img
              src={`/api/house/code.svg?${data.scan}`}
              alt={`A code to scan: ${data.scan}`}
              width={180}
              height={180}
            />
          )}
          <div>
            <p>
              {data.found
                ? "A tablet finds the bakehouse at"
                : "Only this machine finds the bakehouse. Start it with LISTEN=0.0.0.0, or HTTPS=1, so that tablets do."}
            </p>
            <ul className={classes.addresses}>
              {data.addresses.map((address) => (
                <li key={address}>{address}</li>
              ))}
            </ul>
            {data.https === "none" && (
              <p>
                These addresses are plain http: tablets cannot open Eight Turn without a connection,
                nor keep their screens on. Started with <code>make serve HTTPS=1</code>, the
                bakehouse speaks https with a certificate of its own, and a page tells each tablet
                in three steps how to trust it.
              </p>
            )}
            {data.https === "house" && (
              <p>
                A new tablet scans the code, or opens <b>{data.welcome}</b>: the page there says in
                three steps how it is told to trust the bakehouse. The certificate is the right one
                if its SHA-256 fingerprint begins with <code>{data.fingerprint}</code>
              </p>
            )}
            {data.https === "proxy" && <p>A proxy in front speaks https.</p>}
          </div>
        </div>
      )}
    </section>
  );
}
