<span></span>
