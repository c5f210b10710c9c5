/** What services of a site answered when they were asked, and what that means. Asking them is not done here. */
package lychnos.core.service;
