/** Setting up a server's management controller over Redfish (DMTF DSP0266): one way for all kinds that have one. */
package lychnos.wire.controller;
