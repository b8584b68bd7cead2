import { Skeleton } from "antd";
import { useCallback, useEffect, useMemo, useState } from "react";
import { Navigate, useLocation, useNavigate, useParams } from "react-router";
import { Refusal } from "../../api/client";
import { useBegin, useCatalogue, usePerson, usePlan } from "../../api/queries";
import type { Stored } from "../../document/autosave";
import { newAddress, useMadeHere } from "../../lib/madeHere";
import { ShelfPlace } from "../../lib/shelf";
import { Header } from "../../ui/Header";
import { Trouble } from "../../ui/Trouble";
import { draftOf, planKind, type Draft } from "../draft/draft";
import { isStep, type Step } from "../draft/steps";
import { Bench } from "./Bench";
import styles from "./PlanWorkspace.module.css";

/** Opens a plan, or a new one, at a step. */
export function PlanWorkspace() {
  const { step } = useParams();
  const { id, isNew, from } = useMadeHere();
  const { search } = useLocation();
  const navigate = useNavigate();
  const person = usePerson();
  // A new plan loses the mark in its address when it is first saved; the workspace stays.
  const [made, setMade] = useState<string>();
  const fresh = isNew || id === made;
  const catalogue = useCatalogue();
  const shelf = useMemo(() => new ShelfPlace<Draft>(person.id, planKind, id), [person.id, id]);
  const plan = usePlan(fresh ? undefined : id);
  // What a new plan starts from stands in the address it is opened with.
  const [begin] = useState(from);
  const begun = useBegin(begin, fresh);
  const onMade = useCallback(
    (created: Stored, at: Step) => {
      setMade(created.id);
      void navigate(`/plans/${created.id}/${at}`, { replace: true });
    },
    [navigate],
  );

  // A step chosen in the instant in which the plan was made still has the mark: put right.
  useEffect(() => {
    if (isNew && made === id && isStep(step)) void navigate(`/plans/${made}/${step}`, { replace: true });
  }, [id, isNew, made, step, navigate]);

  if (id === "new") return <Navigate to={newAddress("plans", from, step)} replace />;
  if (!isStep(step)) return <Navigate to={`/plans/${id}/head${search}`} replace />;
  // Made here and never saved: it lies on the shelf alone.
  const unsaved = plan.error instanceof Refusal && plan.error.status === 404 ? shelf.look() : undefined;
  const error = catalogue.error ?? (unsaved ? undefined : plan.error) ?? begun.error;
  const opened = fresh ? undefined : plan.data;
  const base = opened ? draftOf(opened) : (unsaved?.base ?? begun.data);
  if (!catalogue.data || !base)
    return (
      <div className={styles.waiting}>
        <Header />
        <main>{error ? <Trouble error={error} /> : <Skeleton active paragraph={{ rows: 10 }} />}</main>
      </div>
    );
  return <Bench key={id} id={id} step={step} opened={opened} base={base} shelf={shelf} onMade={onMade} />;
}

export default PlanWorkspace;
