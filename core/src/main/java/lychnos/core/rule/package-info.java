/** What would go wrong: one small class for each finding. */
package lychnos.core.rule;
