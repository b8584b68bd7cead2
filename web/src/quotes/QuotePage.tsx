import { FilePdfOutlined } from "@ant-design/icons";
import { Alert, Button, Skeleton } from "antd";
import { Link, useParams } from "react-router";
import { server } from "../api/client";
import { useChange, useMay, useQuote } from "../api/queries";
import type { Quote } from "../api/types";
import { download } from "../lib/download";
import { day, when } from "../lib/units";
import { Page } from "../ui/Page";
import { PriceTable } from "../ui/PriceTable";
import { QuoteState } from "../ui/QuoteState";
import { toldOf, Trouble } from "../ui/Trouble";
import styles from "./QuotePage.module.css";

/** A quote as it was given, and what became of it. */
function QuotePage() {
  const { id = "" } = useParams();
  const { data: quote, error, refetch } = useQuote(id);
  if (error)
    return (
      <Page title="Quote" lead="">
        <Trouble error={error} retry={() => void refetch()} />
      </Page>
    );
  if (!quote)
    return (
      <Page title="Quote" lead="">
        <Skeleton active paragraph={{ rows: 8 }} />
      </Page>
    );
  const { given } = quote;
  return (
    <Page
      title={`Quote ${quote.number}`}
      lead={`${given.client ? `For ${given.client}: ` : ""}${given.title}. Given on ${day(given.on)} by ${given.by}; it holds until ${day(given.until)}.`}
    >
      <div className={styles.quote}>
        <section className={styles.pictures} aria-label="Pictures">
          <figure>
            <img src={`/api/v1/quotes/${id}/picture/parted`} alt="The head as it is parted" />
            <figcaption>The parting</figcaption>
          </figure>
          <figure>
            <img src={`/api/v1/quotes/${id}/picture/draped`} alt="The hair as it hangs, drawn" />
            <figcaption>As it hangs: a drawing, hair falls its own way</figcaption>
          </figure>
        </section>
        <section className={styles.sheet}>
          {given.studio && <p className={styles.studio}>{given.studio}</p>}
          <PriceTable price={given.price} currency={given.currency} />
          <Answer quote={quote} />
        </section>
        <section className={styles.sheet}>
          <List title="What is in it" lines={given.included} />
          <List title="Look out for" lines={given.cautions} />
          <List title="In the weeks after" lines={given.care} />
          {given.conditions && (
            <>
              <h2>What else holds</h2>
              <p>{given.conditions}</p>
            </>
          )}
          <p className={styles.note}>
            Usual practice of the trade, not medical advice. Follow the rules for salons where you work.
          </p>
        </section>
      </div>
    </Page>
  );
}

const List = ({ title, lines }: { title: string; lines: readonly string[] }) =>
  lines.length === 0 ? null : (
    <>
      <h2>{title}</h2>
      <ul>
        {lines.map((l) => (
          <li key={l}>{l}</li>
        ))}
      </ul>
    </>
  );

/** What became of it, and the paper to hand over. */
function Answer({ quote }: { quote: Quote }) {
  const may = useMay("answerQuote");
  const answer = useChange(server.answerQuote, "quote", "quotes");
  const say = (state: Quote["state"]) => answer.mutate({ id: quote.id, state });
  return (
    <div className={styles.answer}>
      <p role="status">
        <QuoteState quote={quote} />
        {quote.answered && (
          <span>
            {when(quote.answered)}, {quote.answeredBy}
          </span>
        )}
      </p>
      {may && quote.state === "given" && (
        <div className={styles.buttons}>
          <Button type="primary" size="large" loading={answer.isPending} onClick={() => say("accepted")}>
            It was accepted
          </Button>
          <Button size="large" loading={answer.isPending} onClick={() => say("declined")}>
            It was declined
          </Button>
        </div>
      )}
      {may && quote.state !== "given" && (
        <Button loading={answer.isPending} onClick={() => say("given")}>
          Open it again
        </Button>
      )}
      {quote.expired && (
        <Alert
          type="warning"
          showIcon
          title="Its last day is over: give a new one, or take it as it stands."
        />
      )}
      {answer.error && <Alert type="error" showIcon title={toldOf(answer.error)} />}
      <div className={styles.buttons}>
        <Button icon={<FilePdfOutlined />} onClick={() => download(`/api/v1/quotes/${quote.id}/quote.pdf`)}>
          Quote as PDF
        </Button>
        {quote.planId && <Link to={`/plans/${quote.planId}/hair`}>To the plan</Link>}
      </div>
    </div>
  );
}

export default QuotePage;
