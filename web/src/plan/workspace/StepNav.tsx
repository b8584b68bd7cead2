import { memo } from "react";
import { NavLink, useLocation } from "react-router";
import { stepNames, steps } from "../draft/steps";
import styles from "./StepNav.module.css";

/** The steps of a plan, in the order people work. */
export const StepNav = memo(function StepNav({ id }: { id: string }) {
  const { search } = useLocation();
  return (
    <nav className={styles.steps} aria-label="Steps">
      {steps.map((step, i) => (
        <NavLink
          key={step}
          to={`/plans/${id}/${step}${search}`}
          aria-label={`${i + 1} ${stepNames[step]}`}
          replace
        >
          <b>{i + 1}</b> {stepNames[step]}
        </NavLink>
      ))}
    </nav>
  );
});
